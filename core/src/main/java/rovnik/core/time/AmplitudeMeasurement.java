package rovnik.core.time;

import rovnik.core.Refusal;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** From one record to its amplitude, frequency and phase, and to its spectrum at an instant. */
public final class AmplitudeMeasurement extends StretchMeasurement {
  public static final String KIND = "amplitude";
  public static final String TITLE = "Amplitude and instant";

  /** The filter is flat, and falls over this share of its width around each edge. */
  private static final double FALLS_OVER = 0.3;

  /** A live record is somewhat wider than the band: the filter falls there. */
  private static final double WIDER = 1 + FALLS_OVER;

  /** Where the band is all that a live record holds. */
  private static final double USUAL_BAND = 1e6;

  /** Fewer times of the filter than this are no look over time. */
  private static final double LEAST_TIMES = 32;

  private final AmplitudeSettings settings;

  public AmplitudeMeasurement(AmplitudeSettings settings) {
    super(
        KIND,
        TITLE,
        settings.bandHz() == 0 ? USUAL_BAND : WIDER * settings.bandHz(),
        settings.seconds(),
        settings.words());
    this.settings = settings;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double width = settings.bandHz() == 0 ? fs : settings.bandHz();
    RecordStretch stretch =
        RecordStretch.of(
            record, "band", width, settings.startSeconds(), LEAST_TIMES, samplesWanted(fs));
    double ends = stretch.startSeconds() + stretch.samples() / fs;
    double instant = settings.instantSeconds();
    if (!Double.isNaN(instant) && !(instant >= stretch.startSeconds() && instant <= ends)) {
      throw new Refusal(
          "instantSeconds",
          "The instant lies outside of the result, which is from "
              + stretch.startSeconds()
              + " to "
              + ends
              + " s. Choose one in it.");
    }
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    BandTaker.Band band =
        settings.bandHz() == 0 ? whole(record, stretch) : band(record, stretch, near);
    return new AmplitudeOutcome(settings, record, context, band, stretch, near).outcome();
  }

  /** All of the record, as it is. */
  private static BandTaker.Band whole(IqRecord record, RecordStretch stretch) {
    int n = stretch.samples();
    float[] re = new float[n];
    float[] im = new float[n];
    for (int i = 0; i < n; i++) {
      re[i] = record.iq()[2 * (stretch.from() + i)];
      im[i] = record.iq()[2 * (stretch.from() + i) + 1];
    }
    return new BandTaker.Band(re, im, record.sampleRateHz(), 0, n);
  }

  private BandTaker.Band band(IqRecord record, RecordStretch stretch, double near) {
    double half = settings.bandHz() / 2;
    double flat = half * (1 - FALLS_OVER);
    double end = half * (1 + FALLS_OVER);
    double fs = record.sampleRateHz();
    return new BandTaker(record.iq(), stretch.from(), stretch.samples(), fs)
        .take(
            near,
            end,
            Math.min(2 * end, fs),
            hz -> {
              double share = Math.max(0, Math.min(1, (Math.abs(hz) - flat) / (end - flat)));
              return (1 + Math.cos(Math.PI * share)) / 2;
            });
  }
}
