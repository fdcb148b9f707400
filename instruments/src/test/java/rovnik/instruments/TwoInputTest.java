package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.noise.NoiseSource;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scpi.Timeouts;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** The receiver with two inputs, the noise source and the plugged part, over their sockets. */
public class TwoInputTest {
  private static final DialectLibrary LIBRARY = new DialectLibrary(Path.of("none"));
  private Bench bench;
  private IqReceiver receiver;
  private NoiseSource noise;
  private PartHolder part;

  @BeforeClass
  public void setUp() throws IOException {
    bench = new Bench(0, 17, false);
    receiver =
        (IqReceiver) connect(bench.twoInputPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq-two");
    noise =
        (NoiseSource) connect(bench.noiseSourcePort(), InstrumentKind.NOISE_SOURCE, "scpi-noise");
    part = (PartHolder) connect(bench.noisePartPort(), InstrumentKind.PART_HOLDER, "scpi-parts");
  }

  private static Instrument connect(int port, InstrumentKind kind, String dialect) {
    return Drivers.connect("127.0.0.1", port, kind, LIBRARY.find(dialect), Timeouts.DEFAULT);
  }

  @AfterClass(alwaysRun = true)
  public void tearDown() {
    receiver.close();
    noise.close();
    part.close();
    bench.close();
  }

  private static double meanDbm(IqRecord r) {
    double sum = 0;
    for (float v : r.iq()) {
      sum += (double) v * v;
    }
    return 10 * Math.log10(sum / r.sampleCount()) + r.fullScaleDbm();
  }

  /** +12 dBm at the tip, 10:1: -8 dBm at the port; the first input has noise alone. */
  @Test
  public void bothInputsTakeTheirRecordsTogether() {
    receiver.configure(new IqSetup(458.5e6, 400e3, 8192, 0, 20));
    IqRecord first = receiver.acquire();
    IqRecord second = receiver.acquiredOnSecond();
    assertEquals(second.sampleCount(), first.sampleCount());
    assertEquals(second.fullScaleDbm(), first.fullScaleDbm() + 20, 1e-9);
    assertEquals(meanDbm(second), Truth.EXCITER_DBM - 20, 0.4);
    assertTrue(meanDbm(first) < -60, "" + meanDbm(first));
    assertFalse(second.overload());
  }

  /** Each input overloads by itself, and says so by its own bit. */
  @Test
  public void anOverloadBelongsToItsInput() {
    receiver.configure(new IqSetup(458.5e6, 400e3, 4096, 0, 0));
    IqRecord first = receiver.acquire();
    IqRecord second = receiver.acquiredOnSecond();
    assertFalse(first.overload());
    assertTrue(second.overload());
  }

  @Test
  public void theSecondInputMustBeAskedFor() {
    receiver.configure(new IqSetup(458.5e6, 400e3, 4096, 0));
    receiver.acquire();
    assertEquals(expectThrows(Refusal.class, () -> receiver.acquiredOnSecond()).field(), "second");
  }

  /**
   * Noise powers by the physics of the chain: kT (F1 + ENR) G + kT (F2 - 1) with the preamplifier,
   * kT (F2 + ENR) without (Friis, Proc. IRE 32, 1944).
   */
  @Test
  public void hotAndColdNoiseFollowTheChain() {
    double receiverRatio = Math.pow(10, Truth.RECEIVER_NOISE_FIGURE_DB / 10);
    double excess = Math.pow(10, Truth.NOISE_SOURCE_ENR_DB / 10);
    double partRatio = Math.pow(10, Truth.PREAMP_NOISE_FIGURE_DB / 10);
    double gain = Math.pow(10, Truth.PREAMP_GAIN_DB / 10);
    assertEquals(noiseOverKt("Through", false), receiverRatio, 0.04 * receiverRatio);
    double hot = receiverRatio + excess;
    assertEquals(noiseOverKt("Through", true), hot, 0.04 * hot);
    double cold = partRatio * gain + receiverRatio - 1;
    assertEquals(noiseOverKt("Shore preamplifier", false), cold, 0.04 * cold);
    double both = (partRatio + excess) * gain + receiverRatio - 1;
    assertEquals(noiseOverKt("Shore preamplifier", true), both, 0.04 * both);
    noise.setHot(false);
    assertFalse(noise.hot());
    assertEquals(noise.excessNoiseDb(), Truth.NOISE_SOURCE_LABEL_DB, 1e-9);
  }

  private double noiseOverKt(String plugged, boolean hot) {
    part.plug(plugged);
    noise.setHot(hot);
    double rate = 400e3;
    // Far from the receiver's own lines and dc: the middle is tuned away by subtracting the mean.
    receiver.configure(new IqSetup(458e6, rate, 1 << 17, 0));
    IqRecord r = receiver.acquire();
    double re = 0;
    double im = 0;
    for (int i = 0; i < r.sampleCount(); i++) {
      re += r.iq()[2 * i] / r.sampleCount();
      im += r.iq()[2 * i + 1] / r.sampleCount();
    }
    double sum = 0;
    for (int i = 0; i < r.sampleCount(); i++) {
      sum += Math.pow(r.iq()[2 * i] - re, 2) + Math.pow(r.iq()[2 * i + 1] - im, 2);
    }
    double dbm =
        10 * Math.log10(sum / r.sampleCount()) + r.fullScaleDbm() - Truth.receiverErrorDb(458e6, 0);
    return Math.pow(10, (dbm - Truth.THERMAL_DBM_PER_HZ) / 10) / rate;
  }

  @Test
  public void thePartIsPluggedByItsName() {
    assertTrue(part.parts().contains("Through"));
    part.plug("Through");
    assertEquals(part.plugged(), "Through");
    InstrumentFault f = expectThrows(InstrumentFault.class, () -> part.plug("Kettle"));
    assertEquals(f.kind(), InstrumentFault.Kind.REPORTED);
    assertEquals(part.plugged(), "Through", "what is not there was plugged");
  }
}
