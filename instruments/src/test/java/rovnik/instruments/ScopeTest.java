package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.nets.NetMeasurement;
import rovnik.core.nets.NetSettings;
import rovnik.core.nets.Relation;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.TracesBeside;
import rovnik.core.signal.VoltageRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.iq.SharedIqReceiver;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scope.Oscilloscope;
import rovnik.instruments.scope.ScopeCapabilities;
import rovnik.instruments.scope.ScopeSetup;
import rovnik.instruments.scpi.Timeouts;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** An oscilloscope beside the fast receiver, on its trigger, at the logger board. */
public class ScopeTest {
  private static final DialectLibrary LIBRARY = new DialectLibrary(Path.of("none"));
  private static final double SECONDS = 0.065;
  private static final double RATE = 8e6;
  private static final IqSetup SETUP =
      new IqSetup(Truth.LOGGER_HZ, RATE, (int) (SECONDS * RATE), 0);
  private Bench bench;
  private IqReceiver fast;
  private Oscilloscope scope;
  private PartHolder first;
  private PartHolder second;

  @BeforeClass
  public void setUp() throws IOException {
    bench = new Bench(0, 23, false);
    fast =
        (IqReceiver) connect(bench.fastReceiverPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq-fast");
    scope =
        (Oscilloscope)
            connect(bench.oscilloscopePort(), InstrumentKind.OSCILLOSCOPE, "scpi-oscilloscope");
    first = holder(bench.firstProbePort());
    second = holder(bench.secondProbePort());
    try (PartHolder input = holder(bench.fastInputPort())) {
      input.set("part", "probe over the logger board");
    }
    fast.configure(SETUP);
  }

  private static PartHolder holder(int port) {
    return (PartHolder) connect(port, InstrumentKind.PART_HOLDER, "scpi-parts");
  }

  private static Instrument connect(int port, InstrumentKind kind, String dialect) {
    return Drivers.connect("127.0.0.1", port, kind, LIBRARY.find(dialect), Timeouts.DEFAULT);
  }

  @AfterClass(alwaysRun = true)
  public void tearDown() {
    for (Instrument i : List.of(fast, scope, first, second)) {
      i.close();
    }
    bench.close();
  }

  private Outcome compared(RecordMeasurement.Gathering into) {
    ScopeCapabilities able = scope.capabilities();
    scope.arm(able.lasting(SECONDS));
    IqRecord record = fast.acquireNow();
    assertFalse(scope.waits());
    into.beside(
        new TracesBeside(scope.taken(), able.triggerDelayHalfWidth(), able.clockRelative()));
    return into.add(record, MeasurementContext.BARE);
  }

  private RecordMeasurement.Gathering probing(String one, String two) {
    first.set("part", one);
    second.set("part", two);
    return new NetMeasurement(
            new NetSettings(
                Truth.LOGGER_HZ, 2e6, SECONDS, List.of(one, two), 2e-6, 1e-6, 20e-6, 0, 1))
        .gathering();
  }

  private static String is(Outcome o, String net) {
    for (ResultTable.Row r : o.table("ranking").orElseThrow().rows()) {
      if (r.cells().get(0).text().equals(net)) {
        return r.cells().get(1).text();
      }
    }
    throw new AssertionError(net + " is not in the ranking: " + o.summary());
  }

  @Test
  public void theStrobeIsTheOneAndSleepIsLate() {
    Outcome o = compared(probing("flash write strobe", "radio sleep"));
    assertEquals(is(o, "flash write strobe"), Relation.COINCIDENT.words(), o.summary());
    assertEquals(is(o, "radio sleep"), "in step, but late", o.summary());
    Reading lag = o.reading("lag1").orElseThrow();
    assertEquals(lag.value(), Truth.LOGGER_LAG_SECONDS, 20e-9, o.summary());
    assertTrue(lag.uncertainty() < 25e-9, "give or take " + lag.uncertainty());
    double late = Truth.LOGGER_LAG_SECONDS - Truth.LOGGER_SLEEP_AFTER_STROBE_SECONDS;
    assertEquals(o.reading("lag2").orElseThrow().value(), late, 20e-9);
    Reading drift = o.reading("drift1").orElseThrow();
    assertEquals(drift.value(), -1e6 * Truth.SCOPE_CLOCK_FAST, 1.2 * drift.uncertainty());
  }

  @Test
  public void theOthersAreNot() {
    Outcome o = compared(probing("core clock enable", "watchdog"));
    assertEquals(is(o, "core clock enable"), Relation.UNRELATED.words(), o.summary());
    assertEquals(is(o, "watchdog"), Relation.UNRELATED.words(), o.summary());
  }

  @Test
  public void aProbeThatTouchesNothingIsTold() {
    Outcome o = compared(probing("nothing", "flash write strobe"));
    assertEquals(is(o, "nothing"), Relation.NO_EDGES.words(), o.summary());
    assertEquals(is(o, "flash write strobe"), Relation.COINCIDENT.words(), o.summary());
  }

  @Test
  public void itWaitsForTheReceiverThatItIsConnectedToAndNoOther() {
    scope.arm(new ScopeSetup(25e6, 1000));
    assertTrue(scope.waits());
    try (IqReceiver other =
        (IqReceiver) connect(bench.receiverPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq")) {
      other.configure(new IqSetup(458e6, 3.2e6, 1000, 40));
      other.acquire();
    }
    assertTrue(scope.waits());
    expectThrows(Refusal.class, scope::taken);
    scope.disarm();
    fast.acquire();
    assertFalse(scope.waits());
  }

  @Test
  public void aRecordForTheTriggerIsNeverOneThatAnotherTookBefore() {
    SharedIqReceiver shared = new SharedIqReceiver(fast);
    IqReceiver one = shared.seenBy("one");
    IqReceiver two = shared.seenBy("two");
    one.configure(SETUP);
    two.configure(SETUP);
    one.acquire();
    two.acquireNow();
    assertEquals(shared.acquisitions(), 2);
  }

  @DataProvider
  Object[][] voltages() {
    return new Object[][] {{8, 2}, {20, 0}};
  }

  @Test(dataProvider = "voltages")
  public void voltagesAreThoseOfTheNetInAnyRange(double range, double middle) {
    scope.set(Oscilloscope.RANGE, Double.toString(range));
    scope.set(Oscilloscope.MIDDLE, Double.toString(middle));
    first.set("part", "core clock enable");
    scope.arm(new ScopeSetup(12.5e6, 100_000));
    fast.acquireNow();
    VoltageRecord r = scope.taken().get(0);
    double most = 0;
    double least = 10;
    for (float v : r.volts()) {
      most = Math.max(most, v);
      least = Math.min(least, v);
    }
    double noise = 5 * Truth.SCOPE_NOISE_VOLTS + range / 256;
    assertEquals(most, 3.3 * Truth.SCOPE_GAIN, noise);
    assertEquals(least, 0, noise);
  }

  @DataProvider
  Object[][] lengths() {
    return new Object[][] {{1e-3, 200e6}, {0.0209, 200e6}, {0.021, 100e6}, {0.062, 50e6}};
  }

  @Test(dataProvider = "lengths")
  public void itSamplesAsFastAsItsMemoryAllows(double seconds, double rateHz) {
    ScopeSetup s = scope.capabilities().lasting(seconds);
    assertEquals(s.sampleRateHz(), rateHz, 1e-6 * rateHz);
    assertEquals(s.samples(), seconds * rateHz, 1);
  }

  @Test
  public void whatItCannotDoIsRefused() {
    expectThrows(Refusal.class, () -> scope.capabilities().lasting(1000));
    expectThrows(Refusal.class, () -> scope.set(Oscilloscope.RANGE, "100"));
    expectThrows(Refusal.class, () -> scope.set("colour", "red"));
    expectThrows(Refusal.class, () -> scope.set(Oscilloscope.TRIGGER_OUT, "channel 3"));
    expectThrows(Refusal.class, () -> scope.set(Oscilloscope.TRIGGER_OUT_LEVEL, "100"));
    assertEquals(scope.controls().size(), 4);
    assertEquals(scope.facts().size(), 4);
  }

  private String control(String id) {
    return scope.controls().stream()
        .filter(c -> c.id().equals(id))
        .findFirst()
        .orElseThrow()
        .value();
  }

  @DataProvider
  Object[][] outputs() {
    return new Object[][] {{"off"}, {"channel 1"}, {"channel 2"}};
  }

  @Test(dataProvider = "outputs")
  public void itsTriggerOutputIsWhatItWasSetTo(String of) {
    scope.set(Oscilloscope.TRIGGER_OUT, of);
    scope.set(Oscilloscope.TRIGGER_OUT_LEVEL, "0.75");
    assertEquals(control(Oscilloscope.TRIGGER_OUT), of);
    assertEquals(Double.parseDouble(control(Oscilloscope.TRIGGER_OUT_LEVEL)), 0.75, 1e-9);
  }

  /** How often the fast receiver's trigger input rises in so many seconds. */
  private double[] pulses(double seconds) {
    IqSetup setup = new IqSetup(Truth.LOGGER_HZ, RATE, (int) (seconds * RATE), 0);
    try {
      return fast.streamed(setup).pulseSeconds();
    } finally {
      fast.configure(SETUP);
    }
  }

  @Test
  public void itsTriggerOutputTellsTheReceiverWhenAChannelRises() {
    try (PartHolder input = holder(bench.triggerInputPort())) {
      first.set("part", "core clock enable");
      second.set("part", "nothing");
      scope.set(Oscilloscope.TRIGGER_OUT, "channel 1");
      scope.set(Oscilloscope.TRIGGER_OUT_LEVEL, "1.5");
      input.set("part", "core clock enable");
      double[] itself = pulses(20.5e-3);
      input.set("part", "trigger output of the oscilloscope");
      double[] told = pulses(20.5e-3);
      assertEquals(told.length, itself.length, 1);
      for (int i = 1; i < told.length; i++) {
        assertEquals(told[i] - told[i - 1], Truth.LOGGER_CLOCK_SECONDS, 20e-9);
      }
      for (String[] none : new String[][] {{"channel 1", "5"}, {"channel 2", "1.5"}}) {
        scope.set(Oscilloscope.TRIGGER_OUT, none[0]);
        scope.set(Oscilloscope.TRIGGER_OUT_LEVEL, none[1]);
        assertEquals(pulses(20.5e-3).length, 0, none[0] + " over " + none[1] + " V");
      }
      scope.set(Oscilloscope.TRIGGER_OUT_LEVEL, "0.01");
      assertTrue(pulses(20.5e-3).length > 200, "a level in the noise is crossed all the time");
      scope.set(Oscilloscope.TRIGGER_OUT, "off");
      assertEquals(pulses(20.5e-3).length, 0);
    }
  }
}
