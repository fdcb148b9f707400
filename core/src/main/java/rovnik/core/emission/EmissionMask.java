package rovnik.core.emission;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Decibels;
import rovnik.core.units.Frequency;

/**
 * Limits over the distance from a carrier, in segments that each have their own measuring
 * bandwidth. A segment holds below and above the carrier alike. Where a segment has a relative and
 * an absolute limit, the higher of both applies.
 */
public record EmissionMask(List<Segment> segments) {
  public EmissionMask {
    if (segments.isEmpty() || segments.size() > 40) {
      throw new Refusal("mask", "A mask has 1 to 40 segments.");
    }
  }

  /**
   * One segment; limits are straight lines in dB over the offset.
   *
   * @param fromHz nearest offset, 0 or more
   * @param toHz farthest offset
   * @param rbwHz measuring bandwidth, 0 for that of the trace
   * @param fromDbc limit relative to the reference at the near end, NaN for none
   * @param toDbc the same at the far end
   * @param fromAbsolute absolute limit at the near end in the trace's unit, NaN for none
   * @param toAbsolute the same at the far end
   */
  public record Segment(
      double fromHz,
      double toHz,
      double rbwHz,
      double fromDbc,
      double toDbc,
      double fromAbsolute,
      double toAbsolute) {
    public Segment {
      if (!(fromHz >= 0) || !(toHz > fromHz) || Double.isInfinite(toHz)) {
        throw new Refusal(
            "mask", "A segment of a mask leads from an offset of 0 Hz or more to a larger one.");
      }
      if (!(rbwHz >= 0) || Double.isInfinite(rbwHz)) {
        throw new Refusal("mask", "The bandwidth of a segment must be 0 (the trace's) or more.");
      }
      if (Double.isNaN(fromDbc) != Double.isNaN(toDbc)
          || Double.isNaN(fromAbsolute) != Double.isNaN(toAbsolute)
          || (Double.isNaN(fromDbc) && Double.isNaN(fromAbsolute))) {
        throw new Refusal(
            "mask", "A segment needs a limit at both of its ends: in dBc, absolute, or both.");
      }
    }

    /** True if the relative limit applies at an offset. */
    boolean relativeAt(double offsetHz, double referenceLevel) {
      double absolute = absoluteAt(offsetHz);
      return Double.isNaN(absolute) || limitAt(offsetHz, referenceLevel) > absolute;
    }

    private double absoluteAt(double offsetHz) {
      return fromAbsolute + (offsetHz - fromHz) / (toHz - fromHz) * (toAbsolute - fromAbsolute);
    }

    /** Limit in the trace's unit at an offset inside the segment. */
    public double limitAt(double offsetHz, double referenceLevel) {
      double share = (offsetHz - fromHz) / (toHz - fromHz);
      double relative = referenceLevel + fromDbc + share * (toDbc - fromDbc);
      double absolute = absoluteAt(offsetHz);
      if (Double.isNaN(relative)) {
        return absolute;
      }
      return Double.isNaN(absolute) ? relative : Math.max(relative, absolute);
    }
  }

  /**
   * The worst point of one segment on one side.
   *
   * @param segment index
   * @param offsetHz of the worst point, negative below the carrier
   * @param level there in the segment's bandwidth, in the trace's unit
   * @param dbc the same relative to the reference
   * @param limit there in the trace's unit
   * @param margin limit minus level; 0 and more passes
   */
  public record Result(
      int segment, double offsetHz, double level, double dbc, double limit, double margin) {}

  /**
   * Judges a trace. Segments (or parts of them) outside the trace are left out; the caller can see
   * by {@link #reachHz} whether any was.
   *
   * @param carrierHz middle of the mask
   * @param referenceLevel level that relative limits refer to, in the trace's unit
   * @param peaks interpolated lines: between points they stand higher than any point
   * @throws Refusal if a segment's bandwidth is narrower than the trace's RBW
   */
  public List<Result> judge(
      Trace trace, double carrierHz, double referenceLevel, List<Peak> peaks) {
    BandPower power = new BandPower(trace);
    List<Result> results = new ArrayList<>();
    for (int s = 0; s < segments.size(); s++) {
      Segment segment = segments.get(s);
      if (segment.rbwHz() > 0 && segment.rbwHz() < trace.rbwHz() * (1 - 1e-6)) {
        throw new Refusal(
            "rbwHz",
            "Segment "
                + (s + 1)
                + " of the mask is measured in "
                + Frequency.ofHertz(segment.rbwHz())
                + "; the RBW is coarser. Choose an RBW of at most that.");
      }
      for (int side : new int[] {-1, 1}) {
        Result worst = worst(power, s, side, carrierHz, referenceLevel, peaks);
        if (worst != null) {
          results.add(worst);
        }
      }
    }
    return results;
  }

  private Result worst(
      BandPower power,
      int index,
      int side,
      double carrierHz,
      double referenceLevel,
      List<Peak> peaks) {
    Trace t = power.trace();
    Segment segment = segments.get(index);
    // A filter of the segment's bandwidth stays whole inside the segment.
    boolean wide = segment.rbwHz() > t.rbwHz() * (1 + 1e-6);
    double half = wide ? Math.min(segment.rbwHz(), segment.toHz() - segment.fromHz()) / 2 : 0;
    double near = carrierHz + side * (segment.fromHz() + half);
    double far = carrierHz + side * (segment.toHz() - half);
    double slack = 1e-6 * t.stepHz();
    int first = (int) Math.ceil((Math.min(near, far) - t.startHz() - slack) / t.stepHz());
    int last = (int) Math.floor((Math.max(near, far) - t.startHz() + slack) / t.stepHz());
    if (wide && last < first) {
      first = (int) Math.round(((near + far) / 2 - t.startHz()) / t.stepHz());
      last = first;
    }
    first = Math.max(first, wide ? (int) Math.ceil(half / t.stepHz() - 0.5) : 0);
    last = Math.min(last, t.points() - 1 - (wide ? (int) Math.ceil(half / t.stepHz() - 0.5) : 0));
    Result worst = null;
    for (int i = first; i <= last; i++) {
      double hz = t.frequencyHz(i);
      double level = wide ? power.level(hz - half, hz + half) : t.level()[i];
      worst = worse(worst, index, hz - carrierHz, level, referenceLevel);
    }
    // The limit is strictest at an end, which is no point of the trace in general.
    for (double hz : new double[] {near, far}) {
      boolean inside =
          hz - half >= (wide ? power.lowestHz() : t.startHz() - slack)
              && hz + half <= (wide ? power.highestHz() : t.stopHz() + slack);
      if (inside && last >= first) {
        double level = wide ? power.level(hz - half, hz + half) : t.levelAt(hz);
        worst = worse(worst, index, hz - carrierHz, level, referenceLevel);
      }
    }
    double low = Math.min(near, far);
    double high = Math.max(near, far);
    for (Peak p : wide ? List.<Peak>of() : peaks) {
      if (p.frequencyHz() >= low && p.frequencyHz() <= high) {
        worst = worse(worst, index, p.frequencyHz() - carrierHz, p.level(), referenceLevel);
      }
    }
    return worst;
  }

  private Result worse(Result worst, int index, double offset, double level, double reference) {
    double limit = segments.get(index).limitAt(Math.abs(offset), reference);
    return worst == null || limit - level < worst.margin()
        ? new Result(index, offset, level, level - reference, limit, limit - level)
        : worst;
  }

  /** Width of the narrowest segment. */
  public double narrowestHz() {
    return segments.stream().mapToDouble(s -> s.toHz() - s.fromHz()).min().orElse(0);
  }

  /** Farthest offset that any segment reaches. */
  public double reachHz() {
    return segments.stream().mapToDouble(Segment::toHz).max().orElse(0);
  }

  /** Level of a segment's limit as it stands against a trace of another bandwidth; for drawing. */
  public static double drawnAt(Segment s, double offsetHz, double reference, Trace trace) {
    double wider = s.rbwHz() > trace.rbwHz() ? s.rbwHz() / trace.enbwHz() : 1;
    return s.limitAt(offsetHz, reference) - Decibels.fromPowerRatio(wider);
  }
}
