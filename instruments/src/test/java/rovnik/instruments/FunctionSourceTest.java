package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.analog.AnalogMeasurement;
import rovnik.core.modulation.analog.AnalogSettings;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.FunctionSource;
import rovnik.instruments.source.FunctionState;
import rovnik.standins.Bench;

/** The function source over its socket, and the oscillator that hangs on it. */
public class FunctionSourceTest {
  private static final double RATE = 200e3;
  private Bench bench;
  private FunctionSource source;

  @BeforeMethod
  public void open() throws IOException {
    bench = new Bench(0, 3, false);
    source =
        (FunctionSource)
            connect(bench.functionSourcePort(), InstrumentKind.FUNCTION_SOURCE, "scpi-function");
  }

  @AfterMethod
  public void close() {
    source.close();
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

  private void set(String... pairs) {
    for (int i = 0; i < pairs.length; i += 2) {
      source.set(pairs[i], pairs[i + 1]);
    }
  }

  private IqRecord record() {
    try (IqReceiver r =
        (IqReceiver) connect(bench.thirdReceiverPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq")) {
      r.configure(new IqSetup(64e6 + 30e3, RATE, 32_768, 30));
      return r.acquire();
    }
  }

  private Outcome am() {
    AnalogSettings s =
        new AnalogSettings(
            AnalogSettings.Kind.AM,
            64e6,
            25e3,
            0.15,
            0,
            new AudioFilter(0, 0, 0, false),
            Double.NaN,
            Double.NaN);
    return new AnalogMeasurement(s).of(record(), MeasurementContext.BARE);
  }

  @Test
  public void whatIsSetIsRead() {
    set("shape", "triangle", "frequency", "2500", "offset", "4.25", "amplitude", "0.5");
    set("output", "on");
    FunctionState s = source.state();
    assertTrue(s.on());
    assertEquals(s.shape(), "triangle");
    assertEquals(s.frequencyHz(), 2500, 1e-6);
    assertEquals(s.offsetVolts(), 4.25, 1e-9);
    assertEquals(s.swingVolts(), 0.5, 1e-9);
    assertTrue(source.condition().contains("triangle"), source.condition());
    source.set("shape", "steady");
    assertEquals(source.state().swingVolts(), 0, 0);
    FunctionState after = s.with(Map.of("output", "off", "offset", "5"));
    assertTrue(!after.on() && after.offsetVolts() == 5 && after.amplitudeVolts() == 0.5);
    expectThrows(Refusal.class, () -> source.set("offset", "12"));
    expectThrows(Refusal.class, () -> source.set("amplitude", "-1"));
    expectThrows(Refusal.class, () -> source.set("frequency", "2e9"));
    expectThrows(Refusal.class, () -> source.set("shape", "saw"));
    source.reset();
    assertTrue(!source.state().on());
  }

  /** The output follows the supply from 1.2 V on: depth is the swing over what is above that. */
  @Test
  public void theDepthIsThatOfTheSupply() {
    set("offset", "5", "amplitude", "0.4", "frequency", "1000", "output", "on");
    Outcome o = am();
    double truth = 100 * 0.4 * 1.004 / (5 * 1.004 + 0.003 - 1.2);
    assertEquals(o.reading("amount").orElseThrow().value(), truth, 0.002 * truth);
    assertEquals(o.reading("rate").orElseThrow().value(), 1000, 0.05);
    assertEquals(o.reading("carrierFrequency").orElseThrow().value(), 64e6 * (1 - 3.1e-6), 1);
    // The frequency is pushed by 18 Hz a volt: an index of 18 x 0.4 / 1000 at its peak.
    assertEquals(
        o.reading("phaseWithIt").orElseThrow().value(), 18 * 0.4016 / 1000 / Math.sqrt(2), 5e-4);
  }

  /** More than it bears kills it for good. */
  @Test
  public void tooMuchKillsIt() {
    set("offset", "5", "amplitude", "0", "shape", "steady", "output", "on");
    double before = power(record());
    set("offset", "6.3");
    record();
    set("offset", "5");
    assertTrue(power(record()) < before * 1e-4);
  }

  private static double power(IqRecord r) {
    double sum = 0;
    for (float v : r.iq()) {
      sum += v * (double) v;
    }
    return sum / r.sampleCount();
  }
}
