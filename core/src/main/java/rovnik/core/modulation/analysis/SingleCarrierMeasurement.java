package rovnik.core.modulation.analysis;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.Refusal;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.units.Frequency;

/** From a record and a description to everything that is known of one carrier. */
public final class SingleCarrierMeasurement implements RecordMeasurement {
  /** The series of the wrong bits of each symbol, and its fact of how many were compared. */
  public static final String WRONG_BITS = "wrongBits";

  public static final String BITS_COMPARED = "bits compared";
  public static final String KIND = "single-carrier";
  public static final String TITLE = "Modulation";

  /** Band of a carrier without a filter that limits it, in symbol rates. */
  private static final double SIDE_LOBES = 6;

  private final SingleCarrierSettings settings;
  private final SingleCarrier carrier;
  private final PulseShape measured;
  private final double idle;

  /** Settings are looked at once; records may follow. */
  public SingleCarrierMeasurement(SingleCarrierSettings settings) {
    this.settings = settings;
    this.carrier = settings.carrier();
    this.measured = settings.measured();
    this.idle = carrier.format().keyed() ? 1 : FormatCheck.idle(carrier.constellation());
  }

  /** What is measured. */
  public SingleCarrier carrier() {
    return carrier;
  }

  @Override
  public String bandField() {
    return "symbolRateHz";
  }

  @Override
  public String kind() {
    return KIND;
  }

  @Override
  public String title() {
    return TITLE;
  }

  @Override
  public List<Fact> words() {
    return settings.words();
  }

  /** As far as the carrier is looked for. */
  @Override
  public double bandHz() {
    double half = carrier.halfBandHz();
    double widthHz = Double.isInfinite(half) ? SIDE_LOBES * carrier.symbolRateHz() : 2 * half;
    return widthHz + 2 * settings.reachHz();
  }

  @Override
  public double secondsWanted() {
    return samplesWanted(carrier.symbolRateHz()) / carrier.symbolRateHz();
  }

  @Override
  public long samplesWanted(double sampleRateHz) {
    int guard =
        carrier.format().keyed()
            ? KeyedRecovery.guard(carrier)
            : SymbolRecovery.guard(carrier.filter(), measured);
    int symbols =
        settings.symbols() == 0 ? SingleCarrierSettings.USUAL_SYMBOLS : settings.symbols();
    return (long) Math.ceil((symbols + 2.0 * guard + 4) / carrier.symbolRateHz() * sampleRateHz);
  }

  /**
   * Everything that is read from one record.
   *
   * @param keying of formats that key the frequency, null of the others
   * @param weights of the equalizer, null without one
   */
  record Analysis(
      BandTaker taker,
      Recovered recovery,
      Symbols symbols,
      Optional<KnownData> data,
      ErrorCauses.Split causes,
      boolean decisionsFail,
      Keying keying,
      Weights weights) {}

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return new SingleCarrierOutcome(settings, record, context, analyse(record, context)).outcome();
  }

  /**
   * What the receiver itself puts where the symbols are read, as the mean square for symbols of
   * mean power 1.
   *
   * @param loud a record of the carrier
   * @param quiet one with the source off, all else as it was
   */
  public double ownNoise(IqRecord loud, IqRecord quiet, MeasurementContext context) {
    if (quiet.sampleRateHz() != loud.sampleRateHz() || quiet.centreHz() != loud.centreHz()) {
      throw new Refusal("signal", "Both records must be taken alike.");
    }
    if (!settings.equalizer().off()) {
      throw new Refusal(
          "equalizer", "An equalizer turns the receiver's noise too. Switch it off first.");
    }
    Analysis a = analyse(loud, context);
    int samples = quiet.sampleCount();
    BandTaker.Band band =
        a.recovery()
            .filtered(new BandTaker(quiet.iq(), 0, samples, quiet.sampleRateHz()), a.symbols());
    // The ends are half outside of the record.
    int edge = band.samples() / 8;
    double sum = 0;
    for (int n = edge; n < band.samples() - edge; n++) {
      sum += band.re()[n] * (double) band.re()[n] + band.im()[n] * (double) band.im()[n];
    }
    double gain = a.symbols().gain();
    double levels = Math.pow(10, (quiet.fullScaleDbm() - loud.fullScaleDbm()) / 10);
    double change = loud.calibrated() && quiet.calibrated() ? levels : 1;
    return change * sum / (band.samples() - 2 * edge) / gain / gain;
  }

  Analysis analyse(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double rate = carrier.symbolRateHz();
    double half = carrier.halfBandHz();
    double bandHz = Double.isInfinite(half) ? rate : 2 * half;
    if (bandHz > fs) {
      throw new Refusal(
          "symbolRateHz",
          "A carrier of "
              + Frequency.ofHertz(rate).toString().replace("Hz", "sym/s")
              + " is wider than this record of "
              + Frequency.ofHertz(fs)
              + ". Sample faster, or correct the symbol rate.");
    }
    int from = Math.max(0, record.sampleAt(settings.startSeconds()));
    int there = record.sampleCount() - from;
    if (there < 32) {
      throw new Refusal(
          "startSeconds",
          String.format(
              Locale.ROOT, "The record ends at %.6g s. Begin earlier.", record.endSeconds()));
    }
    int samples = (int) Math.min(there, samplesWanted(fs));
    if (silent(record.iq(), from, samples)) {
      throw new Refusal(
          "signal", "There is no signal: all samples are 0. Check the source and the connection.");
    }
    BandTaker taker = new BandTaker(record.iq(), from, samples, fs);
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    double all = Math.max(0, (fs - bandHz) / 2);
    double reach = settings.centreHz() == 0 ? all : settings.reachHz();
    return carrier.format().keyed()
        ? keyed(taker, samples, fs, near, reach)
        : inThePlane(taker, samples, fs, near, reach);
  }

  private Analysis inThePlane(BandTaker taker, int samples, double fs, double near, double reach) {
    SymbolRecovery recovery = new SymbolRecovery(carrier, measured, taker, samples, fs);
    Symbols s = recovery.recover(near, reach, settings.most());
    Weights weights = null;
    if (!settings.equalizer().off()) {
      SymbolRecovery.Equalized e = recovery.equalized(s, settings.equalizer());
      s = e.symbols();
      weights = e.weights();
    }
    if (settings.trackSymbols() > 0) {
      s = recovery.tracked(s, settings.trackSymbols());
    }
    Optional<KnownData> data = KnownData.in(carrier, s.values());
    if (data.isEmpty()) {
      FormatCheck.check(carrier, s, idle);
    } else if (!carrier.format().differential() && !carrier.format().offset()) {
      // Turned to the axes that the data tell; errors from what was sent, if that is asked for.
      KnownData d = data.get();
      boolean known = settings.knownData() && !Arrays.equals(d.values(), d.decided());
      s =
          known
              ? recovery.withKnown(s, d.values(), -d.turn())
              : recovery.turned(s, d.decided(), -d.turn());
    }
    boolean fail = !(data.isPresent() && settings.knownData()) && decisionsFail(s);
    ErrorCauses.Split causes = new ErrorCauses(carrier, measured, s).split();
    return new Analysis(taker, recovery, s, data, causes, fail, null, weights);
  }

  private Analysis keyed(BandTaker taker, int samples, double fs, double near, double reach) {
    KeyedRecovery recovery = new KeyedRecovery(carrier, measured, taker, samples, fs);
    Symbols s = recovery.recover(near, reach, settings.most());
    Optional<KnownData> data = KnownData.in(carrier, s.values());
    if (data.isPresent()) {
      // One wrong symbol turns all that follow: what was sent is always the better guide.
      s = recovery.withKnown(s, data.get().values());
    }
    ErrorCauses.Split causes = new ErrorCauses(carrier, measured, s).split();
    boolean fail = data.isEmpty() && recovery.slipped(s);
    int way = Math.min(SingleCarrierSeries.EYE_SYMBOLS, s.count() - 1);
    return new Analysis(
        taker,
        recovery,
        s,
        data,
        causes,
        fail,
        recovery.keying(way, SingleCarrierSeries.EYE_COLUMNS / 2),
        null);
  }

  private static boolean silent(float[] iq, int from, int samples) {
    for (int i = 2 * from; i < 2 * (from + samples); i++) {
      if (iq[i] != 0) {
        return false;
      }
    }
    return true;
  }

  /** More than about one decision in a hundred is wrong: errors then read too low. */
  private boolean decisionsFail(Symbols s) {
    Constellation points = carrier.constellation();
    double sigma = Math.sqrt(s.fit().left() / 2);
    return points.leastStep() / 2 < 2.6 * sigma;
  }
}
