package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.spectrum.Detector;
import rovnik.instruments.InstrumentFault.Kind;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.ScpiNumber;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.SignalSource;
import rovnik.instruments.source.StepAttenuator;
import rovnik.instruments.sweep.SweepSetup;
import rovnik.instruments.sweep.SweptAnalyzer;

/** Numbers that make no sense are refused where they come in; nobody computes with them. */
public class NonsenseTest {
  private static final Timeouts SHORT =
      new Timeouts(Duration.ofSeconds(2), Duration.ofSeconds(2), Duration.ofSeconds(3));
  private static final DialectLibrary DIALECTS = new DialectLibrary(Path.of("no-such-folder"));
  private static final int SAMPLES = 8;
  private static final int POINTS = 4;

  private ScriptedPeer peer;

  @BeforeMethod
  public void open() {
    peer = new ScriptedPeer();
  }

  @AfterMethod
  public void close() {
    peer.close();
  }

  private Instrument driver(InstrumentKind kind, String dialect) {
    return Drivers.connect("127.0.0.1", peer.port(), kind, DIALECTS.find(dialect), SHORT);
  }

  @DataProvider
  public Object[][] words() {
    return new Object[][] {
      {"9.91E37", Double.NaN},
      {" 9.9100E+37 ", Double.NaN},
      {"9.9E37", Double.POSITIVE_INFINITY},
      {"-9.9E+37", Double.NEGATIVE_INFINITY},
      {"9.8E37", 9.8e37},
      {"-42.5", -42.5},
    };
  }

  @Test(dataProvider = "words")
  public void whatScpiCallsNotANumber(String sent, double wanted) {
    assertEquals(ScpiNumber.parse(sent), wanted, 0.0);
  }

  @DataProvider
  public Object[][] pads() {
    return new Object[][] {
      {"77", Kind.BAD_REPLY},
      {"-10", Kind.BAD_REPLY},
      {"NaN", Kind.REPORTED},
      {"Infinity", Kind.REPORTED},
      {"9.91E37", Kind.REPORTED},
      {"ten", Kind.BAD_REPLY},
      {"", Kind.BAD_REPLY},
    };
  }

  @Test(dataProvider = "pads")
  public void aPadIsNothingThatNoPadCanBe(String answer, Kind kind) {
    peer.answer("INP:ATT?", answer);
    try (StepAttenuator pad = (StepAttenuator) driver(InstrumentKind.STEP_ATTENUATOR, "scpi-pad")) {
      InstrumentFault fault = expectThrows(InstrumentFault.class, pad::attenuationDb);
      assertEquals(fault.kind(), kind, fault.getMessage());
      assertTrue(fault.getMessage().length() < 200, fault.getMessage());
    }
  }

  @Test
  public void aLineTooManyIsNotTheNextAnswer() {
    peer.answer("INP:ATT?", "10\n77");
    try (StepAttenuator pad = (StepAttenuator) driver(InstrumentKind.STEP_ATTENUATOR, "scpi-pad")) {
      InstrumentFault fault =
          expectThrows(
              InstrumentFault.class,
              () -> {
                assertEquals(pad.attenuationDb(), 10, 1e-9);
                peer.answer("INP:ATT?", "10");
                pad.attenuationDb();
              });
      assertTrue(fault.connectionLost());
      assertTrue(fault.getMessage().contains("more than it was asked for"), fault.getMessage());
    }
  }

  @Test
  public void aSourceOfTenMegawattsIsNone() {
    peer.answer("OUTP?", "1").answer("FREQ?", "4.6E8").answer("POW?", "100.5");
    peer.answer("OUTP:MOD?", "0").answer("POW:DRIV?", "0");
    try (SignalSource s = (SignalSource) driver(InstrumentKind.SIGNAL_SOURCE, "scpi-source")) {
      expectThrows(InstrumentFault.class, s::state);
    }
  }

  private static byte[] block(int bytes, float... values) {
    String head = "#" + Integer.toString(bytes).length() + bytes;
    ByteBuffer b = ByteBuffer.allocate(head.length() + bytes + 1).order(ByteOrder.LITTLE_ENDIAN);
    b.put(head.getBytes(StandardCharsets.US_ASCII));
    for (float v : values) {
      b.putFloat(v);
    }
    return b.put(b.capacity() - 1, (byte) '\n').array();
  }

  @DataProvider
  public Object[][] samples() {
    return new Object[][] {
      {Float.NaN}, {Float.POSITIVE_INFINITY}, {9.91e37f}, {-1e9f},
    };
  }

  private IqReceiver receiver() {
    peer.answer("SENS:SWE:TINT?", "1E-6").answer("INP:FSC?", "-20");
    peer.answer("STAT:QUES:COND?", "0");
    var dialect = DIALECTS.find("scpi-iq");
    peer.answer(dialect.query("sampleIntervalSeconds").ask(), "1E-6");
    peer.answer(dialect.query("fullScaleDbm").ask(), "-20");
    peer.answer(dialect.query("overload").ask(), "0");
    return (IqReceiver) driver(InstrumentKind.IQ_RECEIVER, "scpi-iq");
  }

  @Test(dataProvider = "samples")
  public void samplesThatAreNoNumbersAreNotMeasured(float odd) {
    float[] values = new float[2 * SAMPLES];
    values[5] = odd;
    try (IqReceiver receiver = receiver()) {
      String record = DIALECTS.find("scpi-iq").query("record").ask();
      receiver.configure(new IqSetup(458e6, 1e6, SAMPLES, 10));
      peer.answer(record, block(8 * SAMPLES, new float[2 * SAMPLES]));
      assertEquals(receiver.acquire().sampleCount(), SAMPLES);
      peer.answer(record, block(8 * SAMPLES, values));
      InstrumentFault fault = expectThrows(InstrumentFault.class, receiver::acquire);
      assertTrue(fault.getMessage().contains("samples make no sense"), fault.getMessage());
    }
  }

  @Test
  public void aFullScaleThatIsNotANumberIsSaid() {
    try (IqReceiver receiver = receiver()) {
      peer.answer(DIALECTS.find("scpi-iq").query("fullScaleDbm").ask(), "9.91E37");
      InstrumentFault fault =
          expectThrows(
              InstrumentFault.class,
              () -> receiver.configure(new IqSetup(458e6, 1e6, SAMPLES, 10)));
      assertFalse(fault.connectionLost());
    }
  }

  private SweptAnalyzer analyzer(String sweepSeconds) {
    peer.answer("SENS:BAND?", "1E4").answer("SENS:SWE:TIME?", sweepSeconds);
    peer.answer("INIT:IMM;*OPC?", "1").answer("STAT:QUES:COND?", "0");
    return (SweptAnalyzer) driver(InstrumentKind.SWEPT_ANALYZER, "scpi-sweep");
  }

  private static final SweepSetup SETUP =
      new SweepSetup(450e6, 460e6, 1e4, POINTS, Detector.RMS, 10);

  @DataProvider
  public Object[][] sweepTimes() {
    return new Object[][] {{"9.91E37"}, {"9.9E37"}, {"86400"}, {"-1"}, {"1E300"}};
  }

  @Test(dataProvider = "sweepTimes")
  public void nobodyWaitsForASweepOfADay(String seconds) {
    try (SweptAnalyzer analyzer = analyzer(seconds)) {
      expectThrows(InstrumentFault.class, () -> analyzer.configure(SETUP));
    }
  }

  @Test
  public void levelsBeyondAllSenseAreNotShown() {
    try (SweptAnalyzer analyzer = analyzer("0.01")) {
      analyzer.configure(SETUP);
      peer.answer("TRAC:DATA?", block(4 * POINTS, -90, -80, -90, -90));
      assertEquals(analyzer.sweep().levelDbm()[1], -80f, 1e-6);
      peer.answer("TRAC:DATA?", block(4 * POINTS, -90, 9.91e37f, -90, -90));
      InstrumentFault fault = expectThrows(InstrumentFault.class, analyzer::sweep);
      assertTrue(fault.getMessage().contains("point 2"), fault.getMessage());
    }
  }

  @Test(timeOut = 10_000)
  public void whoWaitsCanBeCutOffByAnother() throws Exception {
    SweptAnalyzer analyzer = analyzer("600");
    analyzer.configure(SETUP);
    peer.answer("INIT:IMM;*OPC?", ScriptedPeer.SILENCE);
    CompletableFuture<Object> waiting = CompletableFuture.supplyAsync(analyzer::sweep);
    assertFalse(waiting.isDone());
    analyzer.close();
    ExecutionException cut =
        expectThrows(ExecutionException.class, () -> waiting.get(5, TimeUnit.SECONDS));
    assertEquals(((InstrumentFault) cut.getCause()).kind(), Kind.DISCONNECTED);
  }

  @Test
  public void aWallOfErrorsIsCut() {
    peer.answer("SYST:ERR?", "0");
    try (ScpiConnection c = ScpiConnection.open("127.0.0.1", peer.port(), SHORT)) {
      peer.answer("SYST:ERR?", "-100,\"" + "x".repeat(60_000) + "\"");
      InstrumentFault fault = expectThrows(InstrumentFault.class, () -> c.set("FREQ 1"));
      assertTrue(fault.getMessage().length() < 600, "" + fault.getMessage().length());
    }
  }
}
