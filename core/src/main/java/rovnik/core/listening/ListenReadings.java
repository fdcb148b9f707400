package rovnik.core.listening;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.analog.AudioSpectrum;
import rovnik.core.modulation.analog.ToneFigures;
import rovnik.core.result.Reading;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;

/** What a radio's meters would say of what is heard. */
final class ListenReadings {
  /** Share by which a filter's amplitude is off what it should be, at most. */
  private static final double RIPPLE = 2e-4;

  /** Less quieting than this comes with clicks of noise (seen in trials). */
  private static final double CLICKS_BELOW_DB = 15;

  private final ListenSettings settings;
  private final Heard heard;
  private final Optional<HeardTone> tone;
  private final MeasurementContext context;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final String unit;

  ListenReadings(
      Heard heard,
      Optional<HeardTone> tone,
      MeasurementContext context,
      CarrierReadings carrier,
      String unit) {
    this.settings = heard.settings;
    this.heard = heard;
    this.tone = tone.filter(HeardTone::found);
    this.context = context;
    this.carrier = carrier;
    this.maker = carrier.maker();
    this.unit = unit;
  }

  List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> own = List.copyOf(context.marks());
    double share = heard.open() / (double) Math.max(1, heard.d.powers.size());
    double[] powers = heard.slots(heard.d.powers);
    if (powers.length == 0) {
      powers = new double[heard.d.powers.size()];
      for (int k = 0; k < powers.length; k++) {
        powers[k] = heard.d.powers.at(k);
      }
    }
    double mean = Arrays.stream(powers).average().orElse(0);
    out.add(
        maker.level(
            "channelPower",
            heard.passages.isEmpty() ? "Power in the channel" : "Power in the channel, while heard",
            Gate.levelDb(mean) + heard.addDb,
            unit,
            10 / Math.log(10) * ofMean(powers) / Math.max(mean, 1e-30),
            Limit.NONE,
            maker.levelMarks()));
    out.add(plain("open", "Heard for", 100 * share, "%", own));
    if (heard.passages.isEmpty()) {
      return out;
    }
    if (settings.squelch().by() != Squelch.By.NONE) {
      out.add(plain("passages", "Passages", heard.passages.size(), "", own));
    }
    if (settings.mode() == Mode.FM) {
      out.add(
          maker.reading(
              "quieting",
              "Quieting",
              heard.quietingDb(),
              "dB",
              new UncertaintyBudget()
                  .normal("slots", 10 / Math.log(10) * relativeOfMean(heard.slots(heard.d.bends))),
              Limit.NONE,
              own));
    }
    if (!settings.mode().oneSideBand()) {
      amounts(out, own);
    }
    tone.ifPresent(t -> tone(t, out, own));
    heard
        .squelchTone()
        .ifPresent(
            t ->
                out.add(
                    maker.reading(
                        "toneSquelch",
                        String.format(
                            Locale.ROOT, "Tone squelch, %.1f Hz of the list", t.nominalHz()),
                        t.measuredHz(),
                        "Hz",
                        new UncertaintyBudget().normal("noise", t.standardHz()),
                        Limit.NONE,
                        own)));
    if (!settings.mode().oneSideBand()) {
      double[] offs = heard.slots(settings.mode() == Mode.FM ? heard.d.means : heard.d.turns);
      out.addAll(
          carrier.frequency("slots", ofMean(offs), settings.bandHz(), settings.centreHz(), own));
    }
    return out;
  }

  private Reading plain(String id, String label, double value, String unit, List<String> own) {
    return maker.reading(id, label, value, unit, new UncertaintyBudget(), Limit.NONE, own);
  }

  private static double ofMean(double[] x) {
    int n = x.length;
    double mean = Arrays.stream(x).average().orElse(0);
    double sum = Arrays.stream(x).map(v -> (v - mean) * (v - mean)).sum();
    double few = n > 3 ? Math.sqrt((n - 1.0) / (n - 3.0)) : 3;
    return n < 2 ? Math.abs(mean) : few * Math.sqrt(sum / (n - 1) / n);
  }

  private static double relativeOfMean(double[] x) {
    return ofMean(x) / Math.max(Arrays.stream(x).average().orElse(0), 1e-30);
  }

  /** How far the carrier goes, whatever it follows. */
  private void amounts(List<Reading> out, List<String> own) {
    Mode m = settings.mode();
    double up = 0;
    double down = 0;
    for (Gate.Passage p : heard.passages) {
      up = Math.max(up, heard.farthest(p, heard.d.highs, 1));
      down = Math.max(down, heard.farthest(p, heard.d.lows, -1));
    }
    // White noise bends by six times its power; behind a discriminator by somewhat less.
    double sigma =
        m == Mode.FM
            ? Math.sqrt(Arrays.stream(heard.slots(heard.d.bends)).average().orElse(0) / 3)
            : 0;
    double rest = tone.map(t -> AudioSpectrum.rms(t.fit.rest())).orElse(0.0);
    UncertaintyBudget noise =
        new UncertaintyBudget().normal("noise", m.scale() * Math.max(sigma, rest));
    out.add(
        maker.reading(
            "highest", m.amount() + ", highest", m.scale() * up, m.unit(), noise, Limit.NONE, own));
    out.add(
        maker.reading(
            "lowest", m.amount() + ", lowest", m.scale() * down, m.unit(), noise, Limit.NONE, own));
  }

  private void tone(HeardTone t, List<Reading> out, List<String> own) {
    Mode m = settings.mode();
    ToneFigures f = t.figures();
    double relative = context.accuracy().frequencyRelative();
    double beside = t.beside();
    // Cramer and Rao's bound, by the noise near the tone.
    double ofRate = Math.sqrt(12) / (2 * Math.PI) * beside / t.fit.amplitude()[0] / t.seconds();
    out.add(
        maker.reading(
            "toneRate",
            "Tone that is heard",
            t.fit.rateHz(),
            "Hz",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * t.fit.rateHz())
                .normal("noise", ofRate),
            Limit.NONE,
            own));
    double passes = t.passes();
    double rest = AudioSpectrum.rms(t.fit.rest());
    double amount = t.amount();
    double noise = beside / passes;
    List<String> ofAmount = new ArrayList<>(own);
    if (m == Mode.FM && heard.quietingDb() < CLICKS_BELOW_DB) {
      ofAmount.add("noise clicks in it: it reads too small");
    }
    if (t.cutOff()) {
      ofAmount.add("its side lines reach beyond the channel: widen it");
    }
    UncertaintyBudget budget =
        new UncertaintyBudget()
            .normal("noise", m.scale() * noise)
            .rectangular("filters", m.scale() * amount * RIPPLE);
    if (m == Mode.FM) {
      budget.rectangular("side lines beyond the channel", amount * t.lostShare(heard));
    }
    if (m == Mode.AM) {
      double linear = context.accuracy().linearityShare();
      budget.rectangular(
          "instrument linearity", Double.isNaN(linear) ? 0 : linear * m.scale() * amount);
      // Noise across the carrier makes it longer, and the depth smaller.
      budget.rectangular("noise on the carrier", m.scale() * amount * rest * rest);
    }
    if (!m.oneSideBand()) {
      out.add(
          maker.reading(
              "toneAmount",
              m.amount() + " by the tone",
              m.scale() * amount,
              m.unit(),
              budget,
              Limit.NONE,
              ofAmount));
    }
    out.add(
        maker.reading(
            "sinad",
            "SINAD of what is heard",
            f.sinadDb(),
            "dB",
            new UncertaintyBudget().normal("noise", f.sinadStandardDb()),
            Limit.NONE,
            own));
    out.add(
        maker.reading(
            "distortion",
            "Distortion",
            100 * f.distortion(),
            "%",
            new UncertaintyBudget().normal("noise", 100 * f.distortionStandard()),
            Limit.NONE,
            own));
  }
}
