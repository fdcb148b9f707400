package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Modulator;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;
import rovnik.core.modulation.wave.Tones;
import rovnik.core.modulation.wave.WaveSum;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.KnownWaveform;
import rovnik.instruments.source.SignalGenerator;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** The vector generator through its socket, seen by a receiver at the end of its cable. */
public class GeneratorTest {
  private static final double CENTRE_HZ = 458.525e6;
  private static final SingleCarrier DATA =
      new SingleCarrier(
          Format.QAM16,
          250e3,
          PulseShape.rootRaisedCosine(0.25),
          List.of(),
          Payload.of(Prbs.ofOrder(15)),
          Framing.NONE);
  private Bench bench;
  private SignalGenerator generator;
  private IqReceiver receiver;

  @BeforeMethod
  public void setUp() throws IOException {
    bench = new Bench(0, 29, false);
    generator =
        (SignalGenerator)
            connect(bench.generatorPort(), InstrumentKind.SIGNAL_GENERATOR, "scpi-generator");
    receiver =
        (IqReceiver) connect(bench.secondReceiverPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq");
  }

  @AfterMethod(alwaysRun = true)
  public void tearDown() {
    generator.close();
    receiver.close();
    bench.close();
  }

  private static Instrument connect(int port, InstrumentKind kind, String dialect) {
    return Drivers.connect(
        "127.0.0.1",
        port,
        kind,
        new DialectLibrary(Path.of("none")).find(dialect),
        Timeouts.DEFAULT);
  }

  private void play(Waveform w, double rateHz) {
    KnownWaveform known = new KnownWaveform(7, "test", w.sampleRateHz(), w.crestDb());
    generator.waveforms(id -> id == 7 ? Optional.of(known) : Optional.empty());
    float[] iq = w.iq().clone();
    float scale = (float) Math.pow(10, -w.crestDb() / 20);
    for (int i = 0; i < iq.length; i++) {
      iq[i] *= scale;
    }
    generator.load(known, iq);
    generator.setRateHz(rateHz);
    generator.play("7");
    generator.setCentreHz(CENTRE_HZ);
    generator.setLevelDbm(-5);
    generator.setOn(true);
  }

  private IqRecord record(double centreHz, double rateHz, int samples) {
    receiver.configure(new IqSetup(centreHz, rateHz, samples, 20));
    return receiver.acquire();
  }

  /** Level of a line by the sum that defines it, under a Hann window; dBm at the port. */
  private static double lineDbm(IqRecord r, double hz) {
    double re = 0;
    double im = 0;
    double all = 0;
    double step = (hz - r.centreHz()) / r.sampleRateHz();
    for (int n = 0; n < r.sampleCount(); n++) {
      double w = 1 - Math.cos(2 * Math.PI * (n + 0.5) / r.sampleCount());
      double angle = -2 * Math.PI * (step * n % 1.0);
      re += w * (r.iq()[2 * n] * Math.cos(angle) - r.iq()[2 * n + 1] * Math.sin(angle));
      im += w * (r.iq()[2 * n] * Math.sin(angle) + r.iq()[2 * n + 1] * Math.cos(angle));
      all += w;
    }
    return 20 * Math.log10(Math.hypot(re, im) / all) + r.fullScaleDbm();
  }

  private static double carrierHz(double hz) {
    return hz * (1 + Truth.GENERATOR_REFERENCE_ERROR);
  }

  private Outcome measured() {
    SingleCarrierSettings s =
        new SingleCarrierSettings(DATA, 0, 0, 2000, 0, null, false, false, Double.NaN);
    return new SingleCarrierMeasurement(s)
        .of(record(CENTRE_HZ + 0.4e6, 1.6e6, 16_384), MeasurementContext.BARE);
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  /** A tone in a waveform: itself, its image and the leakage, as the faults say. */
  @Test
  public void aToneWithImageAndLeakage() {
    play(
        new WaveSum(
                List.of(
                    new WaveSum.Placed(
                        new Tones(List.of(new Tones.Tone(300e3, 0, 0)), "tone"), 0, 0)))
            .make(4e6, 1e-3),
        4e6);
    IqRecord r = record(CENTRE_HZ + 1e6, 6.4e6, 65_536);
    double carrier = carrierHz(CENTRE_HZ);
    double tone = lineDbm(r, carrier + 300e3);
    double cable = Truth.GENERATOR_CABLE_DB_AT_1_GHZ * Math.sqrt(0.4585);
    assertEquals(tone, -5 - cable, 0.4);
    assertEquals(lineDbm(r, carrier) - tone, Truth.GENERATOR_LEAKAGE_DBC, 0.3);
    // Image ratio of a gain imbalance and a quadrature error: the textbook's closed form.
    double g = Math.pow(10, Truth.GENERATOR_IMBALANCE_DB / 20);
    double c = Math.cos(Math.toRadians(Truth.GENERATOR_QUADRATURE_DEGREES));
    double image = 10 * Math.log10((1 - 2 * g * c + g * g) / (1 + 2 * g * c + g * g));
    assertEquals(lineDbm(r, carrier - 300e3) - tone, image, 0.3);
  }

  /** What is made at 500 samples a second and played at 600 comes 1.2 times as fast (identity). */
  @Test
  public void theRateOfPlayingMovesTones() {
    Waveform w =
        new WaveSum(
                List.of(
                    new WaveSum.Placed(
                        new Tones(List.of(new Tones.Tone(100e3, 0, 0)), "tone"), 0, 0)))
            .make(500e3, 1e-3);
    play(w, 600e3);
    IqRecord r = record(CENTRE_HZ + 1e6, 6.4e6, 65_536);
    double carrier = carrierHz(CENTRE_HZ);
    assertTrue(lineDbm(r, carrier + 120e3) > lineDbm(r, carrier + 100e3) + 50);
    Hint hint =
        generator.hints().stream()
            .filter(h -> h.values().containsKey(SignalGenerator.RATE))
            .findFirst()
            .orElseThrow();
    assertTrue(hint.sentence().contains("1.2 MHz"), hint.sentence());
    hint.values().forEach(generator::set);
    assertTrue(
        generator.hints().stream().noneMatch(h -> h.values().containsKey(SignalGenerator.RATE)));
  }

  /** Unadjusted, adjusted, and adjusted elsewhere: what is measured is what the scenario says. */
  @Test
  public void theAdjustmentHoldsWhereItWasMade() {
    play(new Modulator(DATA, 1e6).make(4000), 1e6);
    Outcome raw = measured();
    assertEquals(value(raw, "iqOffset"), Truth.GENERATOR_LEAKAGE_DBC, 0.1);
    assertEquals(Math.abs(value(raw, "gainImbalance")), Truth.GENERATOR_IMBALANCE_DB, 0.003);
    assertEquals(Math.abs(value(raw, "quadratureError")), Truth.GENERATOR_QUADRATURE_DEGREES, 0.01);
    generator.set(SignalGenerator.ADJUST, "");
    Outcome adjusted = measured();
    assertEquals(value(adjusted, "iqOffset"), Truth.GENERATOR_ADJUSTED_LEAKAGE_DBC, 0.6);
    assertEquals(
        Math.abs(value(adjusted, "gainImbalance")), Truth.GENERATOR_ADJUSTED_IMBALANCE_DB, 0.002);
    assertTrue(adjustments().isEmpty());
    generator.setCentreHz(CENTRE_HZ * 1.01);
    assertEquals(adjustments().size(), 1);
    assertTrue(adjustments().get(0).contains("expired"), adjustments().get(0));
    generator.setCentreHz(CENTRE_HZ);
    assertTrue(adjustments().isEmpty());
  }

  private List<String> adjustments() {
    return generator.hints().stream()
        .filter(h -> h.values().containsKey(SignalGenerator.ADJUST))
        .map(Hint::sentence)
        .toList();
  }

  /** The signal stays at its centre; its leakage is where the synthesiser went. */
  @Test
  public void shiftedAsideWithTheCentreKept() {
    play(new Modulator(DATA, 1e6).make(4000), 1e6);
    generator.setShiftHz(2e6);
    assertEquals(generator.generator().centreHz(), CENTRE_HZ, 1);
    assertEquals(generator.generator().synthesiserHz(), CENTRE_HZ - 2e6, 1);
    Outcome o = measured();
    assertTrue(value(o, "iqOffset") < -75, "leakage " + value(o, "iqOffset"));
    assertTrue(value(o, "mer") > 50, "MER " + value(o, "mer"));
    IqRecord wide = record(CENTRE_HZ - 1e6, 12.8e6, 65_536);
    double leak = lineDbm(wide, carrierHz(CENTRE_HZ - 2e6));
    assertEquals(leak, -5 - 0.6 + Truth.GENERATOR_LEAKAGE_DBC, 0.6);
    generator.setCentreHz(470e6);
    assertEquals(generator.generator().shiftHz(), 2e6, 1e-6);
    generator.play(SignalGenerator.CARRIER);
    assertEquals(generator.generator().centreHz(), 470e6, 1);
    assertTrue(lineDbm(record(470e6 + 1e6, 6.4e6, 65_536), carrierHz(470e6)) > -7);
  }

  @Test
  public void trimsAddToTheFaults() {
    play(new Modulator(DATA, 1e6).make(4000), 1e6);
    generator.setTrim(SignalGenerator.GAIN, -Truth.GENERATOR_IMBALANCE_DB);
    generator.setTrim(SignalGenerator.QUADRATURE, -Truth.GENERATOR_QUADRATURE_DEGREES);
    Outcome o = measured();
    assertEquals(value(o, "gainImbalance"), 0, 0.003);
    assertEquals(value(o, "quadratureError"), 0, 0.01);
    expectThrows(Refusal.class, () -> generator.setTrim(SignalGenerator.GAIN, 5));
  }

  /** I and Q each with gain, delay and offset on their way to the modulator. */
  @Test
  public void outputsOfIAndQ() {
    Waveform w = new Modulator(DATA, 1e6).make(4000);
    play(w, 1e6);
    generator.set(SignalGenerator.ADJUST, "");
    Outcome before = measured();
    generator.set("gain-of-q", "-0.5");
    generator.set("delay-of-i", "30e-9");
    generator.set("delay-of-q", "130e-9");
    generator.set("offset-of-i", "0.004");
    Outcome o = measured();
    double gain = value(o, "gainImbalance") - value(before, "gainImbalance");
    assertEquals(Math.abs(gain), 0.5, 0.005);
    assertEquals(value(o, "carrierPower") - value(before, "carrierPower"), -0.25, 0.02);
    assertEquals(
        Math.abs(value(o, "iqDelay") - value(before, "iqDelay")), 100e-9, 2e-9, "delay of Q");
    double rmsVolts = 0.5 * Math.pow(10, -w.crestDb() / 20) * Math.pow(10, -0.25 / 20);
    assertEquals(value(o, "iqOffset"), 20 * Math.log10(0.004 / rmsVolts), 0.5);
    // Both alike is no error, only later.
    generator.set("delay-of-q", "30e-9");
    assertEquals(value(measured(), "iqDelay"), value(before, "iqDelay"), 2e-9);
    Refusal louder = expectThrows(Refusal.class, () -> generator.set("gain-of-i", "1"));
    assertTrue(louder.getMessage().contains("-6"), louder.getMessage());
    expectThrows(Refusal.class, () -> generator.set("delay-of-third", "1"));
    expectThrows(Refusal.class, () -> generator.set("gain-of-fourth", "0"));
  }

  /** A voltage of its own, in step with the others: half a volt is 4 dBm in 50 ohm (identity). */
  @Test
  public void theThirdOutputPlaysInStep() throws IOException {
    play(new Modulator(DATA, 8e6).make(4000), 8e6);
    int n = 4000;
    double toneHz = 8e6 * 600 / n;
    float[] tone = new float[2 * n];
    for (int k = 0; k < n; k++) {
      tone[2 * k] = (float) Math.cos(2 * Math.PI * 600.0 * k / n);
    }
    generator.load(new KnownWaveform(9, "tone", 8e6, 3), tone);
    generator.set(SignalGenerator.THIRD, "W9");
    try (IqReceiver fast =
            (IqReceiver)
                connect(bench.fastReceiverPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq-fast");
        Instrument input =
            connect(bench.fastInputPort(), InstrumentKind.PART_HOLDER, "scpi-parts")) {
      input.set(input.controls().get(0).id(), "third output");
      double[] now = level(fast, toneHz);
      assertEquals(now[0], 10 * Math.log10(0.25 / 2 / 50 * 1000), 0.45, "half a volt");
      generator.set("gain-of-third", "-6");
      generator.set("delay-of-third", "50e-9");
      double[] later = level(fast, toneHz);
      assertEquals(later[0] - now[0], -6, 0.1);
      double turned = Math.IEEEremainder(later[1] - now[1], 2 * Math.PI);
      assertEquals(turned, -2 * Math.PI * toneHz * 50e-9, 0.02);
      generator.set(SignalGenerator.THIRD, SignalGenerator.NOTHING);
      assertTrue(level(fast, toneHz)[0] < -40, "it still plays");
    }
  }

  /** Level of a tone at the port, and its phase at the bench's time 0. */
  private double[] level(IqReceiver fast, double toneHz) {
    double start = bench.world().timeSeconds();
    fast.configure(new IqSetup(2e6, 8e6, 16_384, 20));
    IqRecord r = fast.acquire();
    double re = 0;
    double im = 0;
    for (int k = 0; k < r.sampleCount(); k++) {
      double angle = -2 * Math.PI * (toneHz - r.centreHz()) * k / r.sampleRateHz();
      re += r.iq()[2 * k] * Math.cos(angle) - r.iq()[2 * k + 1] * Math.sin(angle);
      im += r.iq()[2 * k] * Math.sin(angle) + r.iq()[2 * k + 1] * Math.cos(angle);
    }
    double db = 20 * Math.log10(Math.hypot(re, im) / r.sampleCount()) + r.fullScaleDbm();
    // The receiver's own oscillator turns from the record's beginning.
    double phase = Math.atan2(im, re) - 2 * Math.PI * (toneHz - r.centreHz()) * start;
    return new double[] {db, phase};
  }

  @Test
  public void whatItCannotDoIsRefusedWithItsRange() {
    float[] long1 = new float[4];
    Refusal unknown = expectThrows(Refusal.class, () -> generator.play("99"));
    assertTrue(unknown.getMessage().contains("Send it there first"), unknown.getMessage());
    Refusal rate = expectThrows(Refusal.class, () -> generator.setRateHz(1e9));
    assertTrue(rate.getMessage().contains("400 MHz"), rate.getMessage());
    expectThrows(Refusal.class, () -> generator.setLevelDbm(20));
    generator.load(new KnownWaveform(3, "", 1e6, 0), long1);
    assertEquals(generator.choices(), List.of(SignalGenerator.CARRIER, "W3"));
    long1[1] = 2;
    InstrumentFault beyond =
        expectThrows(
            InstrumentFault.class, () -> generator.load(new KnownWaveform(4, "", 1e6, 0), long1));
    assertTrue(beyond.getMessage().contains("full scale"), beyond.getMessage());
  }
}
