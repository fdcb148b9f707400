package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.SignalGenerator;
import rovnik.instruments.tested.BitCounts;
import rovnik.instruments.tested.TestedReceiver;
import rovnik.standins.Bench;

/** Receivers under test over their sockets; their loops are not shared with what measures. */
public class TestedReceiverTest {
  private Bench bench;

  @BeforeMethod
  public void open() throws IOException {
    bench = new Bench(0, 3, false);
  }

  @AfterMethod
  public void close() {
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

  private TestedReceiver voice() {
    return (TestedReceiver)
        connect(bench.voiceReceiverPort(), InstrumentKind.TESTED_RECEIVER, "scpi-voice-receiver");
  }

  private TestedReceiver data() {
    return (TestedReceiver)
        connect(bench.dataReceiverPort(), InstrumentKind.TESTED_RECEIVER, "scpi-data-receiver");
  }

  @Test
  public void withoutASignalNothingIsInStep() {
    try (TestedReceiver r = data()) {
      BitCounts c = r.count(20_000);
      assertFalse(c.inStep());
      assertEquals(c.bits(), 0);
      assertEquals(r.frequencyHz(), 458.525e6, 1);
      assertEquals(r.sequence(), "PN23");
      r.set(TestedReceiver.SEQUENCE, "PN15");
      assertEquals(r.sequence(), "PN15");
      assertTrue(
          expectThrows(Refusal.class, () -> r.count(3_000_000)).getMessage().contains("2000000"));
    }
  }

  /** A carrier without modulation quiets the discriminator: no hiss, the squelch opens. */
  @Test
  public void aCarrierOpensTheSquelch() {
    try (TestedReceiver r = voice();
        SignalGenerator g =
            (SignalGenerator)
                connect(bench.generatorPort(), InstrumentKind.SIGNAL_GENERATOR, "scpi-generator")) {
      double hiss = rms(r.audio(8000));
      assertFalse(r.squelchOpen());
      r.set(TestedReceiver.SQUELCH, "noise");
      assertEquals(rms(r.audio(8000)), 0, 1e-12);
      g.set("frequency", "164.2e6");
      g.set("level", "-40");
      g.set("output", "on");
      r.audio(16_000);
      assertTrue(r.squelchOpen());
      assertTrue(rms(r.audio(8000)) < hiss / 50, "quieted");
      assertEquals(r.condition(), "squelch noise");
      // The tone that its squelch waits for is not there.
      r.set(TestedReceiver.SQUELCH, "tone");
      r.audio(16_000);
      assertFalse(r.squelchOpen());
      assertTrue(Double.isNaN(r.toneHz()));
    }
  }

  private static double rms(double[] x) {
    double sum = 0;
    for (double v : x) {
      sum += v * v / x.length;
    }
    return Math.sqrt(sum);
  }

  @DataProvider
  public Object[][] nonsense() {
    return new Object[][] {
      {"1,2,3"}, {"100,200,1,0,1"}, {"-5,0,0,0,1"}, {"9.91E37,0,0,0,1"}, {"a,b,c,d,e"}
    };
  }

  /** What makes no sense as counts is told as such, and nothing is computed with it. */
  @Test(dataProvider = "nonsense")
  public void countsThatMakeNoSenseAreRefused(String answer) {
    try (ScriptedPeer peer = new ScriptedPeer().answer("READ?", answer);
        TestedReceiver r =
            (TestedReceiver)
                connect(peer.port(), InstrumentKind.TESTED_RECEIVER, "scpi-data-receiver")) {
      InstrumentFault f = expectThrows(InstrumentFault.class, () -> r.count(1024));
      assertTrue(f.getMessage().contains("not bits, errors"), f.getMessage());
    }
  }

  @Test
  public void aDialectThatTellsNothingIsRefused() {
    assertEquals(List.of("PN9", "PN15", "PN23"), TestedReceiver.SEQUENCES);
    assertTrue(
        expectThrows(
                Refusal.class,
                () ->
                    rovnik.instruments.tested.TestedCapabilities.of(
                        new DialectLibrary(Path.of("none")).find("scpi-noise")))
            .getMessage()
            .contains("neither \"counts\" nor \"audio\""));
  }
}
