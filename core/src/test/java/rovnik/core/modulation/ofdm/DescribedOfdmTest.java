package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.ofdm.OfdmDescription.Gold;
import rovnik.core.modulation.ofdm.OfdmDescription.Symbol;
import rovnik.core.modulation.ofdm.OfdmDescription.Tones;
import rovnik.core.modulation.ofdm.OfdmDescription.What;
import rovnik.core.modulation.wave.FramePart;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Frames whose symbols are told, with faults that are known. */
public class DescribedOfdmTest {
  private static OfdmSettings settings(OfdmDescription d, int packet) {
    return new OfdmSettings(
        0, 20e6, 0.1, 0, packet, OfdmSettings.Estimate.TRAINING, true, false, d);
  }

  static Tones known(String tones, List<Double> re, List<Double> im) {
    return new Tones(What.KNOWN, tones, re, im, null, null, null, 0, "");
  }

  static Tones pilots(String tones, List<Double> re, List<Integer> signs) {
    return new Tones(What.PILOTS, tones, re, null, null, signs, null, 0, "");
  }

  static Tones data(String tones, Format format, double levelDb, String user) {
    return new Tones(What.DATA, tones, null, null, null, null, format, levelDb, user);
  }

  /** Signs that no standard has. */
  private static List<Double> signs(int count, long seed) {
    Random random = new Random(seed);
    List<Double> out = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      out.add(random.nextBoolean() ? 1.0 : -1.0);
    }
    return out;
  }

  /** A burst of 52 tones: two symbols of training behind one guard, data with four pilots. */
  static OfdmDescription burst() {
    Tones training = known("-26..26 not 0", signs(52, 3), null);
    return new OfdmDescription(
        "own burst",
        "",
        312.5e3,
        64,
        0,
        5.0,
        List.of(
            new Symbol("Training", 1, 32, List.of(training)),
            new Symbol("Training", 1, 0, List.of(training)),
            new Symbol(
                "Data",
                20,
                16,
                List.of(
                    data("-26..26 not -20, -8, 0, 5, 19", Format.QAM64, 0, ""),
                    pilots("-20, -8, 5, 19", List.of(1.0, -1.0, 1.0, 1.0), List.of(1, -1, -1))))));
  }

  /**
   * A subframe after the manner of 3GPP TS 36.211 and 38.211: 15 kHz, a prefix of 144 samples of
   * 2,048 (160 in the first of seven), known tones in two symbols beside data, none as a pilot.
   */
  static OfdmDescription cellular(Format format, double secondDb) {
    List<Symbol> symbols = new ArrayList<>();
    String first = "-300..-1";
    String second = "0..299";
    for (int s = 0; s < 14; s++) {
      int guard = s % 7 == 0 ? 160 : 144;
      boolean reference = s == 3 || s == 10;
      List<Tones> carries =
          reference
              ? List.of(
                  known("-300..298/2", turned(300, 40 + s, 0), turned(300, 40 + s, 1)),
                  data("-299..-1/2", format, 0, "A"),
                  data("1..299/2", format, secondDb, "B"))
              : List.of(data(first, format, 0, "A"), data(second, format, secondDb, "B"));
      symbols.add(new Symbol(reference ? "Reference" : "Data", 1, guard, carries));
    }
    return new OfdmDescription("subframe", "", 15e3, 2048, 0, null, symbols);
  }

  /** Real or imaginary parts of unit values at the corners of a square. */
  private static List<Double> turned(int count, int seed, int part) {
    Random random = new Random(seed);
    List<Double> out = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      double re = random.nextBoolean() ? Math.sqrt(0.5) : -Math.sqrt(0.5);
      double im = random.nextBoolean() ? Math.sqrt(0.5) : -Math.sqrt(0.5);
      out.add(part == 0 ? re : im);
    }
    return out;
  }

  /** 700 MHz wide, at 1.28 GS/s. */
  static OfdmDescription wide() {
    Tones training = known("-280..280 not 0", signs(560, 5), null);
    return new OfdmDescription(
        "700 MHz",
        "",
        1.25e6,
        1024,
        0,
        null,
        List.of(
            new Symbol("Training", 2, 256, List.of(training)),
            new Symbol(
                "Data",
                16,
                64,
                List.of(
                    data("-280..280 not -200, -50, 0, 60, 210", Format.QAM256, 0, ""),
                    pilots("-200, -50, 60, 210", List.of(1.5, 1.5, -1.5, 1.5), null)))));
  }

  /** What is done to a frame. */
  private record Way(
      double fs, double carrierHz, double clockPpm, double snrDb, double leakDb, double before) {}

  /** Frames as sums of tones over time, each sample by itself; noise over the tones' power. */
  private static float[] received(OfdmDescription d, Way way, int frames, Random random) {
    DescribedFrame f = d.frame();
    FramePlan plan = f.plan();
    double unit = 1 / (2 * d.rateHz());
    int last = f.at().length - 1;
    double length = (f.at()[last] + plan.transform() + plan.head()) * unit;
    double slow = 1 + way.clockPpm() * 1e-6;
    int n = (int) ((2 * way.before() + frames * length * slow) * way.fs());
    double[] re = new double[n];
    double[] im = new double[n];
    double power = 0;
    for (int frame = 0; frame < frames; frame++) {
      for (int s = 0; s <= last; s++) {
        double begin = (f.at()[s] - f.guard()[s] + plan.head()) * unit + frame * length;
        double body = (f.at()[s] + plan.head()) * unit + frame * length;
        double end = body + plan.transform() * unit;
        int from = (int) Math.ceil((way.before() + begin * slow) * way.fs());
        int to = Math.min(n, (int) Math.ceil((way.before() + end * slow) * way.fs()));
        double[][] v = values(plan, f.at()[s], random);
        for (int k = 0; k < plan.tones().length; k++) {
          if (v[0][k] == 0 && v[1][k] == 0) {
            continue;
          }
          for (int i = from; i < to; i++) {
            double t = (i / way.fs() - way.before()) / slow - body;
            double angle = 2 * Math.PI * plan.tones()[k] * d.spacingHz() * t;
            double c = Math.cos(angle);
            double e = Math.sin(angle);
            re[i] += v[0][k] * c - v[1][k] * e;
            im[i] += v[0][k] * e + v[1][k] * c;
          }
        }
      }
    }
    // Against the mean power of what its tones are chosen from.
    SymbolPlan nominal = plan.data().get(0);
    for (int k = 0; k < plan.tones().length; k++) {
      power += nominal.used(k) ? nominal.power(k) : 0;
    }
    double leak = Math.sqrt(power) * Math.pow(10, way.leakDb() / 20);
    // Noise of one tone's power at so many dB under the tones' unit power, in the whole of fs.
    double sigma = Math.sqrt(Math.pow(10, -way.snrDb() / 10) * way.fs() / d.spacingHz() / 2);
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double angle = 2 * Math.PI * way.carrierHz() * i / way.fs() + 1;
      double x = re[i] + leak;
      double c = Math.cos(angle);
      double e = Math.sin(angle);
      iq[2 * i] = (float) (0.01 * (x * c - im[i] * e + sigma * random.nextGaussian()));
      iq[2 * i + 1] = (float) (0.01 * (x * e + im[i] * c + sigma * random.nextGaussian()));
    }
    return iq;
  }

  private static double[][] values(FramePlan plan, int at, Random random) {
    int n = plan.tones().length;
    double[][] out = new double[2][n];
    for (List<SymbolPlan> list : List.of(plan.training(), plan.data())) {
      for (SymbolPlan s : list) {
        for (int k = 0; s.at() == at && k < n; k++) {
          if (s.roles()[k] == SymbolPlan.Role.DATA) {
            int value = random.nextInt(s.points()[k].size());
            out[0][k] = s.re()[k] * s.points()[k].re(value);
            out[1][k] = s.re()[k] * s.points()[k].im(value);
          } else if (s.used(k)) {
            out[0][k] = s.re()[k];
            out[1][k] = s.im()[k];
          }
        }
      }
    }
    return out;
  }

  private static Outcome measured(OfdmDescription d, int packet, float[] iq, double fs) {
    return new OfdmMeasurement(settings(d, packet))
        .of(new IqRecord(iq, fs, 3.6e9, 0, false), MeasurementContext.BARE);
  }

  private static void within(Outcome o, String id, double truth) {
    Reading r = o.reading(id).orElseThrow();
    assertEquals(r.value(), truth, 1.5 * r.uncertainty(), id + ": " + o.summary());
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  @DataProvider
  Object[][] bursts() {
    return new Object[][] {
      {"burst", new Way(25e6, 210e3, -23, 38, -30, 20e-6)},
      {"burst", new Way(50e6, -700e3, 31, 30, -25, 33.3e-6)},
      {"wide", new Way(1.28e9, 3e6, 12, 40, -35, 1.1e-6)},
    };
  }

  /** Noise adds itself, and by the training and the pilots, as the theory of both has it. */
  @Test(dataProvider = "bursts")
  public void aBurstIsFoundAndMeasured(String which, Way way) {
    OfdmDescription d = which.equals("wide") ? wide() : burst();
    float[] iq = received(d, way, 1, new Random(11));
    Outcome o = measured(d, 1, iq, way.fs());
    int tones = d.frame().plan().tones().length;
    double pilots = 4 * (d.transform() == 64 ? 1 : 1.5 * 1.5);
    double turn = 1 / (2 * pilots);
    double known = d.frame().plan().tones().length - 4.0;
    double ideal = (known + pilots) / tones;
    double theory = -way.snrDb() + 10 * Math.log10(1.5 * (1 + turn * (known - 4) / tones) / ideal);
    assertEquals(value(o, "evmDb"), theory, 0.35, o.summary());
    double noise = 100 * Math.sqrt(Math.pow(10, -way.snrDb() / 10) / ideal);
    assertEquals(value(o, "evmWithout"), noise, 0.04 * noise);
    assertEquals(value(o, "packets"), 1);
    within(o, "frequencyError", way.carrierHz());
    within(o, "clockOffset", -way.clockPpm());
    within(o, "leakage", way.leakDb());
  }

  /** Each uncertainty holds as often as it says, and is not needlessly wide. */
  @Test
  public void uncertaintiesArePromises() {
    int trials = 150;
    Random random = new Random(2026);
    String[] ids = {"frequencyError", "clockOffset", "leakage", "evmDb"};
    double[] squares = new double[ids.length];
    int[] inside = new int[ids.length];
    OfdmDescription d = burst();
    double pilots = 4;
    double share = 1.5 * (1 + (52 - 8) / 52.0 / (2 * pilots));
    for (int t = 0; t < trials; t++) {
      Way way =
          new Way(
              25e6,
              400e3 * (random.nextDouble() - 0.5),
              40 * (random.nextDouble() - 0.5),
              28 + 10 * random.nextDouble(),
              -25 - 8 * random.nextDouble(),
              5e-6 + 20e-6 * random.nextDouble());
      Outcome o = measured(d, 1, received(d, way, 1, random), way.fs());
      double[] truths = {
        way.carrierHz(), -way.clockPpm(), way.leakDb(), -way.snrDb() + 10 * Math.log10(share)
      };
      for (int i = 0; i < ids.length; i++) {
        Reading r = o.reading(ids[i]).orElseThrow();
        double off = (r.value() - truths[i]) / r.uncertainty();
        squares[i] += off * off;
        inside[i] += Math.abs(off) <= 1 ? 1 : 0;
      }
    }
    for (int i = 0; i < ids.length; i++) {
      double mean = squares[i] / trials;
      String what = ids[i] + ": " + inside[i] + " of " + trials + ", mean square " + mean;
      // 95 %, less four standard deviations of a share of 150; a standard deviation is half of what
      // is claimed: its square between 0.25 over 3 and 0.25 times 1.6.
      assertTrue(inside[i] >= 0.88 * trials, what);
      assertTrue(mean > 0.08 && mean < 0.4, what);
    }
  }

  @Test
  public void withoutNoiseNothingIsLeft() {
    for (OfdmDescription d : List.of(burst(), wide())) {
      double fs = d.transform() == 64 ? 40e6 : 1.6e9;
      Way way = new Way(fs, 0.02 * d.spacingHz(), 5, 300, -300, 200 / fs);
      Outcome o = measured(d, 1, received(d, way, 1, new Random(4)), fs);
      assertTrue(value(o, "evmDb") < -62, d.name() + ": " + value(o, "evmDb"));
    }
  }

  /** Known tones beside data, one of two, in two symbols of fourteen; no pilots, no end. */
  @Test
  public void subframesThatFollowEachOtherAreFound() {
    OfdmDescription d = cellular(Format.QAM16, -6);
    Way way = new Way(30.72e6, 2.3e3, 0.4, 32, -300, 0.1e-3);
    float[] iq = received(d, way, 2, new Random(21));
    Outcome o = measured(d, 1, iq, way.fs());
    assertEquals(value(o, "packets"), 2, o.summary());
    within(o, "frequencyError", way.carrierHz());
    ResultTable users = o.table("users").orElseThrow();
    assertEquals(users.rows().get(0).cells().get(0).text(), "A");
    assertEquals(
        users.rows().get(0).cells().get(1).text(), "300:\u00a0\u2212300\u00a0to\u00a0\u22121");
    double a = users.rows().get(0).cells().get(2).value();
    double b = users.rows().get(1).cells().get(2).value();
    // Two trainings of every second tone add half of the noise there, and by the curve through four
    // of them (-1, 9, 9, -1 of 16) 0.64 of that half in between, to data of any level alike; those
    // of B have 6 dB less over their own noise.
    double training = 0.5 * (1 + 164 / 256.0) / 2;
    assertEquals(a, -32 + 10 * Math.log10(1 + training), 0.2);
    assertEquals(b, -32 + 10 * Math.log10(Math.pow(10, 0.6) + training), 0.2);
    // Without them the noise is left, over the mean power of both.
    double noise = 100 * Math.sqrt(Math.pow(10, -3.2) / ((1 + Math.pow(10, -0.6)) / 2));
    assertEquals(value(o, "evmWithout"), noise, 0.02 * noise);
    assertTrue(o.reading("leakage").isEmpty(), "the tone in the middle is in use");
  }

  @Test
  public void aFrameThatIsCutOffIsReadAsFarAsItIsThere() {
    OfdmDescription d = burst();
    Way way = new Way(25e6, 0, 0, 40, -60, 20e-6);
    float[] iq = received(d, way, 1, new Random(6));
    float[] cut = Arrays.copyOf(iq, 2 * (int) ((20e-6 + 40e-6) * 25e6));
    Outcome o = measured(d, 1, cut, 25e6);
    assertTrue(o.summary().contains("cut off: 7 of 20 symbols are there"), o.summary());
    assertTrue(value(o, "evmDb") < -36, o.summary());
  }

  @DataProvider
  Object[][] ready() {
    return ReadyDescriptions.all().stream()
        .map(d -> new Object[] {d.name()})
        .toArray(Object[][]::new);
  }

  /** What is made of a description is found and measured as it, twice in a row. */
  @Test(dataProvider = "ready")
  public void whatIsMadeIsMeasured(String name) {
    OfdmDescription d =
        ReadyDescriptions.all().stream().filter(x -> x.name().equals(name)).findFirst().get();
    double lasts = FrameMaker.samples(d, 2) / (2 * d.rateHz());
    FramePart part = new FramePart(d, 1.5 * lasts, 7);
    double[] made = part.make((int) (3 * lasts * 2 * d.rateHz()), 2 * d.rateHz());
    double power = 0;
    for (double v : made) {
      power += v * v;
    }
    assertEquals(power / made.length * 2 * 1.5, 1, 0.05, "mean power while a frame lasts");
    float[] iq = new float[made.length];
    Random random = new Random(3);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (0.1 * made[i] + 1e-4 * random.nextGaussian());
    }
    Outcome o = measured(d, 1, iq, 2 * d.rateHz());
    assertEquals(value(o, "packets"), 2, o.summary());
    assertTrue(value(o, "evmDb") < -50, o.summary());
    Refusal r = expectThrows(Refusal.class, () -> new FramePart(d, lasts / 2, 7));
    assertEquals(r.field(), "intervalSeconds");
    assertEquals(
        expectThrows(Refusal.class, () -> part.make(1000, 3 * d.rateHz())).field(), "sampleRateHz");
  }

  /** Three guards of four samples say little: the known tones decide. */
  @Test
  public void aShortFrameWithShortGuardsIsFound() {
    List<Symbol> few = new ArrayList<>();
    few.add(new Symbol("T", 1, 4, List.of(known("-26..26 not 0", signs(52, 8), null))));
    few.add(new Symbol("D", 2, 4, List.of(data("-26..26 not 0", Format.QPSK, 0, ""))));
    OfdmDescription d = new OfdmDescription("short", "", 312.5e3, 64, 0, null, few);
    Way way = new Way(40e6, 30e3, 0, 35, -300, 15e-6);
    Outcome o = measured(d, 1, received(d, way, 1, new Random(12)), way.fs());
    assertEquals(value(o, "packets"), 1, o.summary());
    // One training adds as much noise as the data have.
    assertEquals(value(o, "evmDb"), -35 + 3, 1.2, o.summary());
  }

  /** What began before the record is left out; the frame behind it is the first. */
  @Test
  public void aFrameWithoutItsBeginningIsLeftOut() {
    OfdmDescription d = cellular(Format.QPSK, 0);
    Way way = new Way(30.72e6, 0, 0, 35, -300, 1e-6);
    float[] iq = received(d, way, 2, new Random(31));
    int from = 2 * (int) (0.1e-3 * way.fs());
    Outcome o = measured(d, 1, Arrays.copyOfRange(iq, from, iq.length), way.fs());
    assertEquals(value(o, "packets"), 1, o.summary());
    assertTrue(value(o, "evmDb") < -32, o.summary());
    assertEquals(
        o.table("packets").orElseThrow().rows().get(0).cells().get(0).value(), 0.901e-3, 1e-6);
  }

  /** A frame with one other sign is another frame only if its description says so. */
  @Test
  public void whatIsNotThereIsNotFound() {
    Way way = new Way(25e6, 40e3, 0, 30, -60, 20e-6);
    float[] iq = received(burst(), way, 1, new Random(7));
    Tones other = known("-26..26 not 0", signs(52, 99), null);
    Symbol last = burst().symbols().get(2);
    OfdmDescription wrong =
        new OfdmDescription(
            "other signs",
            "",
            312.5e3,
            64,
            0,
            null,
            List.of(new Symbol("T", 1, 32, List.of(other)), last));
    Refusal r = expectThrows(Refusal.class, () -> measured(wrong, 1, iq, 25e6));
    assertTrue(r.getMessage().contains("no known tones as the description has them"), "" + r);
    Random random = new Random(9);
    float[] noise = new float[400_000];
    for (int i = 0; i < noise.length; i++) {
      noise[i] = (float) (0.01 * random.nextGaussian());
    }
    for (OfdmDescription d : List.of(burst(), untold())) {
      Refusal none = expectThrows(Refusal.class, () -> measured(d, 1, noise, 25e6));
      assertEquals(none.field(), "signal");
    }
  }

  /** The burst, but nobody says which signs its training has. */
  private static OfdmDescription untold() {
    List<Symbol> symbols = new ArrayList<>(burst().symbols());
    for (int i = 0; i < 2; i++) {
      Symbol s = symbols.get(i);
      Tones learned = of(What.LEARNED, "-26..26 not 0", null, null);
      symbols.set(i, new Symbol(s.name(), 1, s.guard(), List.of(learned)));
    }
    return new OfdmDescription("untold", "", 312.5e3, 64, 0, 5.0, symbols);
  }

  /** At any offset, through noise: what is learned is as good as what is known. */
  @Test
  public void signsThatNobodyToldAreLearned() {
    Random random = new Random(77);
    for (int t = 0; t < 40; t++) {
      double offset = 312.5e3 * 3 * (random.nextDouble() - 0.5);
      double ppm = 40 * (random.nextDouble() - 0.5);
      Way way = new Way(25e6, offset, ppm, 22 + 15 * random.nextDouble(), -30, 20e-6);
      float[] iq = received(burst(), way, 1, random);
      Outcome told = measured(burst(), 1, iq, way.fs());
      Outcome o = measured(untold(), 1, iq, way.fs());
      assertTrue(o.summary().contains("training learned from the signal"), o.summary());
      assertEquals(value(o, "evmDb"), value(told, "evmDb"), 0.05, o.summary());
      assertEquals(value(o, "frequencyError"), value(told, "frequencyError"), 1, o.summary());
    }
  }

  @DataProvider
  Object[][] mistakes() {
    Tones good = known("-26..26 not 0", signs(52, 3), null);
    Tones some = data("-26..26 not 0", Format.QPSK, 0, "");
    return new Object[][] {
      {64, List.of(new Symbol("T", 1, 16, List.of(good))), "No symbol has data"},
      {64, List.of(new Symbol("D", 1, 16, List.of(some))), "No symbol has known tones"},
      {15, List.of(), "transform is 16 to 16,384"},
      {32, both(good, some, 16), "tone -26 is outside"},
      {64, both(good, some, 0), "No symbol has a guard"},
      {64, both(known("1..5", signs(5, 1), null), some, 16), "At least 16 known tones"},
      {64, both(known("1..19", signs(18, 1), null), some, 16), "19 tones are known, but 18 values"},
      {64, both(good, data("1, 1", Format.QPSK, 0, ""), 16), "named twice"},
      {64, both(good, data("1", null, 0, ""), 16), "need a format"},
      {64, both(good, data("1", Format.GMSK, 0, ""), 16), "need a format"},
      {64, both(good, data("a..b", Format.QPSK, 0, ""), 16), "cannot be read"},
      {64, both(good, data("3 not 3", Format.QPSK, 0, ""), 16), "has no tones"},
      {64, both(good, pilots("5", List.of(0.0), null), 16), "is to be known, but is 0"},
      {64, both(good, pilots("5", List.of(1.0), List.of(2)), 16), "signs are 1 or -1"},
      {64, both(good, pilots("5", List.of(1e300), null), 16), "re and im are"},
      {
        64,
        List.of(
            new Symbol(
                "T",
                1,
                16,
                List.of(
                    of(What.LEARNED, "1..20", null, null), data("-9..-1", Format.QPSK, 0, "")))),
        "a symbol of their own"
      },
      {64, both(of(What.LEARNED, "1..20", null, null), good, 16), "where no others are known"},
      {64, both(of(What.LEARNED, "1..9", null, null), some, 16), "At least 16 known tones"},
      {64, both(of(What.LEARNED, "1..20", signs(2, 1), null), some, 16), "20 tones are learned"},
      {64, both(good, of(What.DATA, "1..20", signs(2, 1), null), 16), "as many of each"},
      {64, both(good, of(What.DATA, "1", signs(3, 1), signs(3, 2)), 16), "points of its data"},
      {
        64,
        both(
            good,
            new Tones(What.DATA, "1", null, null, new Gold(1, 0), null, Format.QPSK, 0, ""),
            16),
        "a gold sequence is for"
      },
      {
        64,
        both(
            new Tones(What.KNOWN, "1..20", null, null, new Gold(-1, 0), null, null, 0, ""),
            some,
            16),
        "gold has init"
      },
      {
        64,
        both(
            new Tones(What.KNOWN, "1..20", signs(20, 1), null, new Gold(1, 0), null, null, 0, ""),
            some,
            16),
        "in place of re and im"
      },
      {64, List.of(many(good), many(some), many(some), many(some)), "1 to 4,000 of them"},
    };
  }

  private static Tones of(What what, String tones, List<Double> re, List<Double> im) {
    return new Tones(what, tones, re, im, null, null, null, 0, "");
  }

  private static Symbol many(Tones of) {
    return new Symbol("M", 1 << 30, 16, List.of(of));
  }

  private static List<Symbol> both(Tones training, Tones rest, int guard) {
    return List.of(
        new Symbol("T", 1, guard, List.of(training)), new Symbol("D", 2, guard, List.of(rest)));
  }

  @Test(dataProvider = "mistakes")
  public void mistakesAreTold(int transform, List<Symbol> symbols, String told) {
    Refusal r =
        expectThrows(
            Refusal.class,
            () -> new OfdmDescription("x", "", 312.5e3, transform, 0, null, symbols));
    assertEquals(r.field(), "description");
    assertTrue(r.getMessage().contains(told), r.getMessage());
  }

  @Test
  public void aWindowIsNoLongerThanAGuard() {
    Tones some = data("-26..26 not 0", Format.QPSK, 0, "");
    List<Symbol> symbols = both(known("-26..26 not 0", signs(52, 3), null), some, 8);
    Refusal r =
        expectThrows(
            Refusal.class, () -> new OfdmDescription("x", "", 312.5e3, 64, 9, null, symbols));
    assertTrue(r.getMessage().contains("window is longer than a guard"), r.getMessage());
    assertEquals(new OfdmDescription("x", "", 312.5e3, 64, 8, null, symbols).window(), 8);
  }
}
