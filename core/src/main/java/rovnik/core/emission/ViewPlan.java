package rovnik.core.emission;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.spectrum.PointReducer;
import rovnik.core.spectrum.TraceRow;

/**
 * What is shown and read beside the main trace; parts that are null are not asked for.
 *
 * @param traces more looks at the same signal, up to six
 * @param reducer how bins become points when there are more bins than points
 * @param mostPoints points of a trace on the screen at most
 * @param occupied occupied bandwidth
 * @param adjacent adjacent channels
 * @param mask emission mask
 * @param highestDensity limit of the channel's power density in dBm/Hz, NaN for none; null if it is
 *     not asked for
 * @param twoTones third-order products of the two strongest lines
 * @param amDepth depth of AM from the lines beside the strongest
 * @param reads numbers read at markers
 * @param skirt whether the skirt of the strongest line is leakage
 * @param display unit that levels are shown in
 * @param second second input of the receiver, null if it is not looked at
 */
public record ViewPlan(
    List<TraceRow> traces,
    PointReducer reducer,
    int mostPoints,
    Occupied occupied,
    AdjacentChannels adjacent,
    EmissionMask mask,
    Double highestDensity,
    boolean twoTones,
    boolean amDepth,
    boolean skirt,
    List<ReadAt> reads,
    LevelDisplay display,
    SecondInput second) {

  public static final int FEWEST_POINTS = 101;
  public static final int MOST_POINTS = 1 << 15;

  /** Nothing besides the main trace. */
  public static final ViewPlan PLAIN =
      new ViewPlan(
          List.of(),
          PointReducer.PEAK,
          4096,
          null,
          null,
          null,
          null,
          false,
          false,
          false,
          List.of(),
          LevelDisplay.PLAIN,
          null);

  /** What is read at a marker. */
  public enum ReadKind {
    /** Level of the trace at the marker. */
    LEVEL,
    /** Noise density around the marker. */
    DENSITY,
    /** Power in a band around the marker. */
    BAND,
    /** Frequency of the line, from the phase of the record. */
    COUNT
  }

  /**
   * A number read at a marker.
   *
   * @param widthHz of the band around it
   */
  public record ReadAt(ReadKind kind, double hertz, double widthHz) {
    public ReadAt {
      if (kind == null || !(widthHz > 0) || Double.isInfinite(widthHz)) {
        throw new Refusal(
            "reads", "A marker's reading needs a kind and a width of more than 0 Hz.");
      }
      Refusal.finite("reads", hertz);
    }
  }

  /** Numbers read at markers at most. */
  public static final int MOST_READS = 16;

  /**
   * Occupied bandwidth.
   *
   * @param share of the power inside, 0 to 1; used unless {@code xDb} is set
   * @param xDb width between the points that many dB below the highest, NaN to use the share
   * @param widestHz limit, NaN for none
   */
  public record Occupied(double share, double xDb, double widestHz) {
    public Occupied {
      if (Double.isNaN(xDb) && !(share > 0.5 && share < 1)) {
        throw new Refusal(
            "occupiedShare", "The share of power must lie between 50 and 100 %, such as 99.");
      }
      if (xDb <= 0) {
        throw new Refusal("occupiedXDb", "x dB must be a positive number of dB, such as 26.");
      }
    }
  }

  /** True if something is read of the samples themselves, which a trace does not tell. */
  public boolean wantsRecord() {
    return amDepth || reads.stream().anyMatch(r -> r.kind() == ReadKind.COUNT);
  }

  public ViewPlan {
    if (display == null) {
      throw new Refusal("unit", "Choose the unit of levels, for example DBM.");
    }
    if (traces.size() > TraceRow.MOST_ROWS) {
      throw new Refusal("traces", "A view has at most " + TraceRow.MOST_ROWS + " traces.");
    }
    if (reads.size() > MOST_READS) {
      throw new Refusal("reads", "At most " + MOST_READS + " numbers are read at markers.");
    }
    if (mostPoints < FEWEST_POINTS || mostPoints > MOST_POINTS) {
      throw new Refusal(
          "mostPoints", "A trace shows " + FEWEST_POINTS + " to " + MOST_POINTS + " points.");
    }
  }
}
