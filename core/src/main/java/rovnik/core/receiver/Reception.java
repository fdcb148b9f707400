package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.analog.AudioSpectrum;
import rovnik.core.modulation.analysis.BitErrorRatio;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.core.uncertainty.UncertaintyBudget;

/**
 * What a receiver makes of what it receives now.
 *
 * @param at what it gets of its generator, null if there is no path to it
 * @param levelDbm at its connector, NaN if that is not known
 * @param counted all bits and packets since counting began
 * @param history what was seen, look by look, the oldest first
 * @param heard the newest stretch of audio, null if it gives none
 * @param toneHz tone below the voice that it hears, NaN for none
 * @param highestErrorRatio of bits that passes, NaN for no limit
 * @param leastSinadDb that passes, NaN for no limit
 */
public record Reception(
    ReceiverModel model,
    LevelAtReceiver at,
    double levelDbm,
    Quality counted,
    List<Quality> history,
    Heard heard,
    double toneHz,
    double highestErrorRatio,
    double leastSinadDb) {
  public static final String KIND = "receiver";
  public static final String TITLE = "Receiver";
  private static final int SHOWN_PERIODS = 8;
  private static final int MOST_SHOWN = 2000;

  /** Errors without which nothing is said about theory. */
  private static final int ENOUGH = 10;

  /** What of it can be shown. */
  public Outcome outcome() {
    Quality now = history.get(history.size() - 1);
    List<Reading> readings = new ArrayList<>();
    bits(readings, now);
    audio(readings, now);
    boolean known = at != null && !Double.isNaN(levelDbm);
    if (known) {
      readings.add(
          LevelRun.reading(
              "level", "Level at the receiver", levelDbm, at.budget(0), at, Limit.NONE));
    }
    StringBuilder words = new StringBuilder();
    if (!now.lost().isEmpty()) {
      words.append(Character.toUpperCase(now.lost().charAt(0)));
      words.append(now.lost().substring(1)).append(". ");
    }
    if (now.squelchOpen() != null) {
      words.append(now.squelchOpen() ? "The squelch is open. " : "The squelch is closed. ");
    }
    return new Outcome(
        KIND, TITLE, words.toString().strip(), series(), List.of(), readings, List.of(), List.of());
  }

  private String plane() {
    return at == null ? "" : at.plane();
  }

  private Reading plain(
      String id,
      String label,
      double value,
      String unit,
      UncertaintyBudget budget,
      Limit limit,
      List<String> marks) {
    return new Reading(
        id,
        label,
        value,
        unit,
        plane(),
        budget.expanded(),
        budget.contributions(),
        limit,
        limit.judge(marks.isEmpty() ? value : Double.NaN, budget.expanded()),
        marks);
  }

  private void bits(List<Reading> out, Quality now) {
    if (counted.bits() == 0) {
      return;
    }
    List<String> marks = now.lost().isEmpty() ? List.of() : List.of(now.lost());
    BitErrorRatio r = BitErrorRatio.of(counted.errors(), counted.bits());
    out.add(
        plain(
            "ber",
            String.format(
                Locale.ROOT,
                "Bit error ratio, %,d of %,d bits (%.2g to %.2g)",
                r.errors(),
                r.bits(),
                r.low(),
                r.high()),
            r.ratio(),
            "",
            half(r),
            new Limit(Double.NaN, highestErrorRatio),
            marks));
    if (counted.packets() > 0) {
      BitErrorRatio p = BitErrorRatio.of(counted.wrongPackets(), counted.packets());
      out.add(
          plain(
              "per",
              String.format(Locale.ROOT, "Packet error ratio, %,d of %,d", p.errors(), p.bits()),
              p.ratio(),
              "",
              half(p),
              Limit.NONE,
              marks));
    }
    if (model.comparable() && at != null && !Double.isNaN(levelDbm) && r.errors() >= ENOUGH) {
      double here = model.ebN0Db(levelDbm);
      double needs = model.theory().orElseThrow().ebN0Db(r.ratio());
      out.add(
          new Reading(
              "loss",
              model.lossLabel(),
              here - needs,
              "dB",
              plane(),
              at.budget(scatterDb(r)).expanded(),
              at.budget(scatterDb(r)).contributions(),
              Limit.NONE,
              Verdict.NONE,
              marks));
    }
  }

  private double scatterDb(BitErrorRatio r) {
    return Math.abs(
            model.theory().orElseThrow().ebN0Db(r.low())
                - model.theory().orElseThrow().ebN0Db(r.high()))
        / 4;
  }

  private static UncertaintyBudget half(BitErrorRatio r) {
    double half = Math.max(r.high() - r.ratio(), r.ratio() - r.low());
    return new UncertaintyBudget().normal("counting", half / UncertaintyBudget.K);
  }

  private void audio(List<Reading> out, Quality now) {
    if (heard == null) {
      return;
    }
    List<String> marks = now.lost().isEmpty() ? List.of() : List.of(now.lost());
    if (heard.tone().found()) {
      out.add(
          plain(
              "sinad",
              "SINAD",
              heard.figures().sinadDb(),
              "dB",
              new UncertaintyBudget().normal("noise", heard.figures().sinadStandardDb()),
              new Limit(leastSinadDb, Double.NaN),
              marks));
      out.add(
          plain(
              "distortion",
              "Distortion",
              100 * heard.figures().distortion(),
              "%",
              new UncertaintyBudget().normal("noise", 100 * heard.figures().distortionStandard()),
              Limit.NONE,
              marks));
      out.add(
          plain(
              "rate",
              "Tone",
              heard.tone().rateHz(),
              "Hz",
              new UncertaintyBudget().normal("noise", heard.figures().rateStandardHz()),
              Limit.NONE,
              marks));
    }
    out.add(
        plain(
            "audioLevel",
            "Audio level",
            heard.levelDbfs(),
            "dBFS",
            new UncertaintyBudget(),
            Limit.NONE,
            List.of()));
    if (!Double.isNaN(toneHz)) {
      out.add(
          plain(
              "toneSquelch",
              "Tone below the voice, as the radio hears it",
              toneHz,
              "Hz",
              new UncertaintyBudget(),
              Limit.NONE,
              List.of()));
    }
  }

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    Axis looks = Axis.even("Look", "", 1, 1, history.size());
    if (history.stream().anyMatch(q -> q.bits() > 0)) {
      double[] y =
          history.stream()
              .mapToDouble(
                  q -> q.errors() == 0 ? Double.NaN : Math.log10((double) q.errors() / q.bits()))
              .toArray();
      out.add(
          Series.curve("errorsOverLooks", "Bit error ratio, look by look", looks, y, "")
              .of(LevelCurves.POWER_OF_TEN));
    }
    if (heard != null) {
      double[] y = history.stream().mapToDouble(Quality::sinadDb).toArray();
      out.add(Series.curve("sinadOverLooks", "SINAD, look by look", looks, y, "dB").of("SINAD"));
      int n = heard.samples().length;
      int shown =
          heard.tone().found()
              ? (int) Math.min(n, SHOWN_PERIODS / heard.tone().rateHz() * heard.rateHz())
              : Math.min(n, MOST_SHOWN);
      out.add(
          Series.curve(
                  "audio",
                  "Audio",
                  Axis.even("Time", "s", 0, 1 / heard.rateHz(), shown),
                  java.util.Arrays.copyOf(heard.samples(), shown),
                  "")
              .of("Share of full scale"));
      out.add(
          AudioSpectrum.of(
              heard.samples(), heard.rateHz(), heard.highestHz(), heard.tone(), "Audio spectrum"));
    }
    return out;
  }
}
