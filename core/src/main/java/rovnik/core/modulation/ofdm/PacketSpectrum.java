package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rovnik.core.emission.EmissionMask;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.MaskReference;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;
import rovnik.core.units.Decibels;

/**
 * What a packet and those like it have on the air, in the same record: their spectrum with the mask
 * of the standard, and that of the quiet between packets, which is no part of them.
 */
final class PacketSpectrum {
  /** Of a signal that is only described, the width of its transform over the RBW. */
  private static final double FINENESS = 200;

  /** How far is looked to each side, in widths of the channel. */
  private static final double REACH = 2;

  /** Packets of one sender: level and carrier are so near to that of the one shown. */
  private static final double ALIKE_DB = 1;

  private static final double ALIKE_HZ = 20e3;

  /** Where nothing is sent, powers differ less than so; and are so far below a packet. */
  private static final double COMES_AND_GOES = 2;

  private static final double QUIET = 0.25;

  /** Of the densest place: it is that of the tones as they were received, whose noise is little. */
  private static final double REFERENCE_DB = 0.05;

  /** More would scatter less than 0.1 dB. */
  private static final int MOST_SEGMENTS = 2000;

  private static final int MOST_POINTS = 2048;

  private final OfdmSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final int from;
  private final SpectrumLayout layout;

  /**
   * @param p the packet that is shown
   * @param from first sample that was searched
   */
  private PacketSpectrum(
      OfdmSettings settings,
      IqRecord record,
      MeasurementContext context,
      List<OfdmPacket> packets,
      OfdmPacket p,
      int from,
      SpectrumLayout layout) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.packets = packets;
    this.p = p;
    this.from = from;
    this.layout = layout;
  }

  /**
   * What is drawn and read.
   *
   * @param series the spectrum, then that between packets if there is enough of it, then limits
   * @param emission what was read of it
   */
  record Look(List<Series> series, EmissionResult emission) {}

  /** Nothing if all packets like the one shown are too short for the RBW. */
  static Optional<Look> of(
      OfdmSettings settings,
      IqRecord record,
      MeasurementContext context,
      List<OfdmPacket> packets,
      OfdmPacket p,
      int from) {
    double fs = record.sampleRateHz();
    double rbw = p.said() == null ? settings.rateHz() / FINENESS : StandardMask.RBW_HZ;
    double reach = Math.min(REACH * settings.rateHz(), fs / 2 - Math.abs(p.carrier()));
    boolean possible =
        Window.HANN.figures().width3dbBins() * fs / rbw >= SpectrumLayout.SHORTEST_WINDOW;
    return possible
        ? new PacketSpectrum(
                settings,
                record,
                context,
                packets,
                p,
                from,
                SpectrumLayout.plan(fs, p.carrier(), 2 * reach, rbw, Window.HANN))
            .look()
        : Optional.empty();
  }

  private Optional<Look> look() {
    SpectrumEstimator estimator = new SpectrumEstimator(layout, Detector.RMS);
    List<int[]> gaps = new ArrayList<>();
    int quiet = from;
    for (OfdmPacket x : packets) {
      int begin = from + (int) Math.rint(x.startSeconds() * record.sampleRateHz());
      int end = Math.min(record.sampleCount(), begin + length(x));
      if (alike(x)) {
        add(estimator, begin, end);
      }
      gaps.add(new int[] {quiet, begin});
      quiet = Math.max(quiet, end);
    }
    if (estimator.segments() == 0) {
      return Optional.empty();
    }
    Trace trace = trace(estimator);
    gaps.add(new int[] {quiet, record.sampleCount()});
    estimator.reset();
    quiet(estimator, gaps);
    Trace between = estimator.segments() == 0 ? null : trace(estimator);
    double centre = plane(record.centreHz() + p.carrier());
    SpectrumSettings asked =
        new SpectrumSettings(
            centre,
            trace.stopHz() - trace.startHz(),
            layout.rbwHz(),
            Window.HANN,
            Detector.RMS,
            trace.segments(),
            0,
            settings.rateHz());
    EmissionResult emission =
        EmissionMeasurement.ofNoise(
            trace,
            asked,
            context,
            mask(centre, trace),
            new MaskReference(densest(trace, centre), REFERENCE_DB, "dBr", true),
            p.said() == null ? "" : StandardMask.nameOf(p.said().format()),
            between);
    List<Series> out = new ArrayList<>();
    out.add(TraceSeries.thin("spectrum", "Spectrum of packets", trace, MOST_POINTS));
    if (between != null) {
      out.add(
          TraceSeries.thin("between", "Between packets", between, MOST_POINTS)
              .as(Series.Role.BESIDE));
    }
    out.addAll(emission.limitLines());
    return Optional.of(new Look(List.copyOf(out), emission));
  }

  private void add(SpectrumEstimator to, int begin, int end) {
    int from = Math.max(0, begin);
    long most = layout.samplesFor(MOST_SEGMENTS - to.segments());
    if (end > from && to.segments() < MOST_SEGMENTS) {
      to.accumulate(record.iq(), from, (int) Math.min(end - from, most));
      to.breakRecord();
    }
  }

  /**
   * What is between packets, without what comes and goes there, too: packets that could not be read
   * or whose beginning is not in the record.
   */
  private void quiet(SpectrumEstimator to, List<int[]> gaps) {
    int piece = layout.windowLength();
    double lowest = Double.POSITIVE_INFINITY;
    for (int[] gap : gaps) {
      for (int at = Math.max(0, gap[0]); at + piece <= gap[1]; at += piece) {
        lowest = Math.min(lowest, power(at, piece));
      }
    }
    double most = Math.min(COMES_AND_GOES * lowest, QUIET * OfdmOutcome.dataPower(p));
    for (int[] gap : gaps) {
      int begin = Math.max(0, gap[0]);
      int at = begin;
      for (; at + piece <= gap[1]; at += piece) {
        if (power(at, piece) > most) {
          add(to, begin, at);
          begin = at + piece;
        }
      }
      add(to, begin, at);
    }
  }

  private double power(int from, int count) {
    double sum = 0;
    for (int n = 2 * from; n < 2 * (from + count); n++) {
      sum += record.iq()[n] * record.iq()[n];
    }
    return sum / count;
  }

  private int length(OfdmPacket x) {
    double rate = x.said() == null ? settings.rateHz() : settings.preambleHz();
    return (int) (x.seconds(rate) * record.sampleRateHz());
  }

  /** Of the same sender, as far as can be told. */
  private boolean alike(OfdmPacket x) {
    if (x == p) {
      return true;
    }
    boolean same = x.whole() && (x.said() == null || x.said().format() == p.said().format());
    double apart = OfdmOutcome.dataPower(x) / OfdmOutcome.dataPower(p);
    return same
        && Math.abs(10 * Math.log10(apart)) < ALIKE_DB
        && Math.abs(x.carrier() - p.carrier()) < ALIKE_HZ;
  }

  private Trace trace(SpectrumEstimator e) {
    double[] power = new double[layout.points()];
    e.powerInto(power);
    return SpectrumMeasurement.trace(
        power,
        layout,
        record.centreHz(),
        record.fullScaleDbm(),
        e.segments(),
        Detector.RMS,
        context);
  }

  private double plane(double portHz) {
    PathCorrection c = record.calibrated() ? context.correction() : null;
    return c == null ? portHz : c.portToPlaneHz(portHz);
  }

  /** Of the standard, at the reading plane; null of a signal that is only described. */
  private EmissionMask mask(double centre, Trace trace) {
    boolean known =
        p.said() != null && (p.said().format() != PacketFormat.LEGACY || settings.width() == 1);
    if (!known) {
      return null;
    }
    PathCorrection c = context.correction();
    double sent = c == null ? centre : c.planeToSourceHz(centre);
    double add =
        record.calibrated()
            ? Decibels.fromPowerRatio(layout.enbwHz() / StandardMask.LEVELS_IN_HZ)
                + (c == null ? 0 : c.gainFromSourceDb(sent))
            : Double.NaN;
    double seen = (trace.stopHz() - trace.startHz()) / 2;
    return StandardMask.of(
        p.said().format(),
        settings.rateHz(),
        sent,
        Math.max(seen, StandardMask.CORNERS * settings.rateHz()),
        add);
  }

  /**
   * The highest level that the data have in the RBW, in the unit of the trace: of tones that last
   * as long as a symbol with its guard, each as strong as it was received, through the window. So
   * it needs no look at a place that scatters.
   */
  private double densest(Trace trace, double centre) {
    double[] power = new double[p.tones().length];
    double all = 0;
    for (int k = 0; k < power.length; k++) {
      double h = p.channelRe()[k] * p.channelRe()[k] + p.channelIm()[k] * p.channelIm()[k];
      double sent = 0;
      for (SymbolPlan s : p.plan().data()) {
        sent += s.used(k) ? s.power(k) : 0;
      }
      power[k] = h * sent;
      all += power[k];
    }
    double highest = ToneDensity.of(p.plan(), settings.rateHz(), layout).highest(p.tones(), power);
    double dbfs = 10 * Math.log10(OfdmOutcome.dataPower(p) * highest / all);
    PathCorrection c = record.calibrated() ? context.correction() : null;
    return dbfs
        + (record.calibrated() ? record.fullScaleDbm() : 0)
        - (c == null ? 0 : c.gainToPortDb(centre));
  }
}
