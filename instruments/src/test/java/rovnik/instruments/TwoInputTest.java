package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.iq.SharedIqReceiver;
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

  /** Two measurements that want the same samples cost one acquisition; others take turns. */
  @Test
  public void oneAcquisitionServesSeveralMeasurements() {
    SharedIqReceiver shared = new SharedIqReceiver(receiver);
    IqReceiver spectrum = shared.seenBy("spectrum");
    IqReceiver quality = shared.seenBy("quality");
    IqSetup setup = new IqSetup(458.525e6, 800e3, 4096, 20);
    spectrum.configure(setup);
    quality.configure(setup);
    IqRecord first = spectrum.acquire();
    assertSame(quality.acquire(), first);
    assertEquals(shared.acquisitions(), 1);
    // Nobody is given the same noise twice.
    float before = first.iq()[0];
    IqRecord second = quality.acquire();
    assertEquals(shared.acquisitions(), 2);
    assertTrue(second.iq()[0] != before);
    assertSame(spectrum.acquire(), second);
    assertEquals(shared.acquisitions(), 2);
    quality.configure(new IqSetup(458.525e6, 800e3, 8192, 20));
    assertEquals(quality.acquire().sampleCount(), 8192);
    assertEquals(spectrum.acquire().sampleCount(), 4096);
    assertEquals(shared.acquisitions(), 4);
    // The second input's record belongs to the one that asked for it.
    spectrum.configure(setup.withSecond(20));
    spectrum.acquire();
    assertEquals(spectrum.acquiredOnSecond().sampleCount(), 4096);
    shared.reset();
    spectrum.acquire();
    assertEquals(shared.acquisitions(), 6);
  }

  /** What the Bench needs to draw an instrument of any kind, and to switch it. */
  @Test
  public void instrumentsOfferTheirControls() {
    Control hot = noise.controls().get(0);
    assertEquals(hot.form(), Control.Form.SWITCH);
    noise.set(hot.id(), Control.ON);
    assertEquals(noise.controls().get(0).value(), Control.ON);
    noise.set(hot.id(), Control.OFF);
    assertFalse(noise.hot());
    Control plugged = part.controls().get(0);
    assertTrue(plugged.choices().contains("Through"), plugged.toString());
    part.set(plugged.id(), "Through");
    assertEquals(part.controls().get(0).value(), "Through");
    assertEquals(
        receiver.controls().stream().map(Control::form).toList(), List.of(Control.Form.ACTION));
    assertEquals(expectThrows(Refusal.class, () -> noise.set("glow", "on")).field(), "control");
    assertEquals(noise.facts().get(0).unit(), "dB");
  }

  /** An answer to *IDN? leads to the dialects that know it, and to no other. */
  @Test
  public void dialectsKnowTheirInstruments() {
    assertEquals(
        LIBRARY.thatKnow(noise.identity()).stream().map(Dialect::id).toList(),
        List.of("scpi-noise"));
    assertTrue(
        LIBRARY.thatKnow(receiver.identity()).stream()
            .anyMatch(d -> d.kind() == InstrumentKind.IQ_RECEIVER));
    assertEquals(LIBRARY.thatKnow("Somebody,Something,1,2"), List.of());
  }
}
