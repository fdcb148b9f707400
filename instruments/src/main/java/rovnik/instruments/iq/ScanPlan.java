package rovnik.instruments.iq;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Frequency;

/**
 * A span beyond one record, stitched from steps on one grid of points.
 *
 * <p>Every step uses a part above its tuned frequency, so that the receiver's dc spike is never in
 * sight and the flat middle of the record is. Steps overlap; over the overlap one fades into the
 * next, so that a difference of their levels is a slope and no step.
 *
 * @param steps in order of frequency
 * @param firstPoint where each step's first point lies in the stitched trace
 * @param layout of the stitched trace; its offsets count from {@code originHz}
 * @param originHz frequency at the port that the layout's offsets count from
 * @param overlapPoints points that two neighbours share
 */
public record ScanPlan(
    List<AcquisitionPlan> steps,
    List<Integer> firstPoint,
    SpectrumLayout layout,
    double originHz,
    int overlapPoints) {

  /** Used part of a record, in sample rates above the tuned frequency. */
  private static final double FROM_RATE = 0.02;

  private static final double TO_RATE = 0.4;
  private static final double OVERLAP_RATE = 0.03;

  /** Automatic RBW of a wide scan is never coarser than this. */
  private static final double COARSEST_AUTO_RBW_HZ = 1e6;

  /** Points of one trace: beyond this a survey is two surveys. */
  private static final int MOST_POINTS = 1 << 23;

  /** True if a span needs a scan. */
  public static boolean needed(double spanHz, IqCapabilities receiver) {
    return spanHz > receiver.widestSpanHz() * (1 + 1e-9);
  }

  /**
   * Plans a scan.
   *
   * @param atPort settings with centre and reference level at the receiver's port
   * @throws Refusal if the receiver does not tune that far or the trace would be too long
   */
  public static ScanPlan of(SpectrumSettings atPort, IqCapabilities receiver) {
    double start = atPort.centreHz() - atPort.spanHz() / 2;
    double stop = atPort.centreHz() + atPort.spanHz() / 2;
    if (start < receiver.lowestHz() || stop > receiver.highestHz()) {
      throw new Refusal(
          "spanHz",
          "The receiver tunes from "
              + Frequency.ofHertz(receiver.lowestHz())
              + " to "
              + Frequency.ofHertz(receiver.highestHz())
              + "; this span leads from "
              + Frequency.ofHertz(start)
              + " to "
              + Frequency.ofHertz(stop)
              + " at its port. Choose start and stop within its range.");
    }
    double rate = receiver.fastestRateHz();
    double rbw =
        atPort.rbwHz() > 0
            ? atPort.rbwHz()
            : Math.min(atPort.effectiveRbwHz(), COARSEST_AUTO_RBW_HZ);
    SpectrumLayout one =
        atPort.fftLength() > 0
            ? SpectrumLayout.ofLength(rate, 0, rate / 2, atPort.window(), atPort.fftLength())
            : SpectrumLayout.plan(rate, 0, rate / 2, rbw, atPort.window());
    double step = one.stepHz();
    long points = (long) Math.floor(atPort.spanHz() / step + 1e-6) + 1;
    if (points > MOST_POINTS) {
      throw new Refusal(
          "rbwHz",
          "This scan would have "
              + points
              + " points. Choose an RBW of at least "
              + Frequency.ofHertz(Math.ceil(one.rbwHz() * points / MOST_POINTS))
              + ", or a narrower span.");
    }
    int from = (int) Math.ceil(FROM_RATE * rate / step);
    int whole = (int) Math.floor((TO_RATE - FROM_RATE) * rate / step);
    int overlap = (int) Math.ceil(OVERLAP_RATE * rate / step);
    List<AcquisitionPlan> steps = new ArrayList<>();
    List<Integer> first = new ArrayList<>();
    for (int at = 0; at == 0 || at + overlap < points; at += whole - overlap) {
      int count = (int) Math.min(whole, points - at);
      double startHz = start + at * step;
      // Near the receiver's lowest frequency a step begins closer to where it is tuned.
      int bin =
          (int) Math.max(1, Math.min(from, Math.floor((startHz - receiver.lowestHz()) / step)));
      SpectrumLayout layout =
          new SpectrumLayout(
              rate, atPort.window(), one.windowLength(), one.fftLength(), bin, count);
      steps.add(AcquisitionPlan.of(atPort, receiver, startHz - bin * step, layout));
      first.add(at);
    }
    SpectrumLayout all =
        new SpectrumLayout(
            rate, atPort.window(), one.windowLength(), one.fftLength(), 0, (int) points);
    return new ScanPlan(List.copyOf(steps), List.copyOf(first), all, start, overlap);
  }

  /**
   * Puts one step into the stitched trace: the shared points fade from what lies there to the step.
   *
   * @param power of the step's points, linear, in milliwatts
   * @param stitched all points, changed
   */
  public void merge(int step, double[] power, double[] stitched) {
    int at = firstPoint.get(step);
    int count = steps.get(step).layout().points();
    for (int i = 0; i < count; i++) {
      double share = step == 0 || i >= overlapPoints ? 1 : (i + 0.5) / overlapPoints;
      double before = stitched[at + i];
      stitched[at + i] =
          share == 1 || before <= 0 || power[i] <= 0
              ? power[i]
              : Math.exp((1 - share) * Math.log(before) + share * Math.log(power[i]));
    }
  }

  /** Points that are there once a step has been taken. */
  public int pointsAfter(int step) {
    return firstPoint.get(step) + steps.get(step).layout().points();
  }

  /** Samples of all steps together. */
  public long samples() {
    return steps.stream().mapToLong(s -> s.setup().samples()).sum();
  }
}
