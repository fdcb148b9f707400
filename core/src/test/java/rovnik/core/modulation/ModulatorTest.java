package rovnik.core.modulation;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Waveforms against one made with SciPy, and against what analyses them. */
public class ModulatorTest {
  private static final double RATE = 48e3;

  private static SingleCarrier carrier(Format format, PulseShape filter) {
    return new SingleCarrier(format, RATE, filter, List.of(), Payload.of(Prbs.PN9), Framing.NONE);
  }

  private static float[] floats(String name) throws IOException {
    try (InputStream in = ModulatorTest.class.getResourceAsStream("/fixtures/" + name)) {
      byte[] bytes = in.readAllBytes();
      float[] out = new float[bytes.length / 4];
      ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(out);
      return out;
    }
  }

  /** NumPy and SciPy, from bits to samples: see fixtures/make_fixtures.py. */
  @Test
  public void samplesAreThoseOfSciPy() throws IOException {
    float[] expected = floats("carrier_64qam.f32");
    Waveform w =
        new Modulator(carrier(Format.QAM64, PulseShape.rootRaisedCosine(0.25)), 4 * RATE).make(1);
    assertTrue(w.seamless());
    assertEquals(w.samples(), 2044);
    double error = 0;
    for (int i = 0; i < expected.length; i++) {
      error += Math.pow(w.iq()[i] - expected[i], 2);
    }
    double db = 10 * Math.log10(error / 2044);
    assertTrue(db < -90, "error " + db + " dB");
  }

  @DataProvider
  public Object[][] formats() {
    Format[] all =
        java.util.Arrays.stream(Format.values()).filter(f -> !f.keyed()).toArray(Format[]::new);
    Object[][] rows = new Object[all.length][];
    for (int i = 0; i < all.length; i++) {
      rows[i] = new Object[] {all[i]};
    }
    return rows;
  }

  /** What was made is read back, at whole and at odd ratios of the rates: 70 dB down, all bits. */
  @Test(dataProvider = "formats")
  public void whatIsMadeIsReadBack(Format format) {
    // Nine bits a symbol make 511 symbols of PN9 that are all different: no power of them has a
    // line.
    SingleCarrier c =
        new SingleCarrier(
            format,
            RATE,
            PulseShape.rootRaisedCosine(0.3),
            List.of(),
            Payload.of(format == Format.QAM512 ? Prbs.PN11 : Prbs.PN9),
            Framing.NONE);
    for (double ratio : new double[] {4, 10.0 / 3, 5.2}) {
      Waveform w = new Modulator(c, ratio * RATE).make(3000);
      Outcome o =
          new SingleCarrierMeasurement(
                  new SingleCarrierSettings(c, 0, 0, 0, 0, null, false, true, Double.NaN))
              .of(
                  new IqRecord(w.iq(), w.sampleRateHz(), 1e9, Double.NaN, false),
                  MeasurementContext.BARE);
      double mer = o.reading("mer").orElseThrow().value();
      assertTrue(mer > 70, ratio + " samples a symbol: " + mer + " dB");
      assertEquals(o.reading("ber").orElseThrow().value(), 0.0);
      assertEquals(o.reading("carrierPower").orElseThrow().value(), 0, 0.1, "dB of mean power 1");
    }
  }

  @DataProvider
  public Object[][] filters() {
    return new Object[][] {
      {PulseShape.rootRaisedCosine(0.1)},
      {PulseShape.rootRaisedCosine(1)},
      {new PulseShape(PulseShape.Kind.RAISED_COSINE, 0.35)},
      {new PulseShape(PulseShape.Kind.HALF_SINE, 0)},
      {new PulseShape(PulseShape.Kind.RECTANGULAR, 0)},
    };
  }

  /** Each filter with the one that matches it. */
  @Test(dataProvider = "filters")
  public void everyFilterIsReadBack(PulseShape filter) {
    SingleCarrier c = carrier(Format.QPSK, filter);
    Waveform w = new Modulator(c, 8 * RATE).make(3000);
    Outcome o =
        new SingleCarrierMeasurement(
                new SingleCarrierSettings(c, 0, 0, 0, 0, null, false, true, Double.NaN))
            .of(
                new IqRecord(w.iq(), w.sampleRateHz(), 1e9, Double.NaN, false),
                MeasurementContext.BARE);
    double mer = o.reading("mer").orElseThrow().value();
    assertTrue(mer > (filter.bandLimited() ? 70 : 20), filter + ": " + mer + " dB");
    assertEquals(o.reading("ber").orElseThrow().value(), 0.0);
  }

  /** Long waveforms are made in blocks: no block's edge is seen. */
  @Test
  public void blocksJoin() {
    SingleCarrier c =
        new SingleCarrier(
            Format.QPSK,
            RATE,
            PulseShape.rootRaisedCosine(0.35),
            List.of(),
            Payload.of(Prbs.PN15),
            Framing.NONE);
    Waveform w = new Modulator(c, 4 * RATE).make(32767);
    assertTrue(w.seamless());
    assertEquals(w.samples(), 4 * 32767);
    SingleCarrierSettings s =
        new SingleCarrierSettings(c, 0, 0, 30_000, 0, null, false, true, Double.NaN);
    Outcome o =
        new SingleCarrierMeasurement(s)
            .of(
                new IqRecord(w.iq(), w.sampleRateHz(), 1e9, Double.NaN, false),
                MeasurementContext.BARE);
    assertTrue(o.reading("evmPeak").orElseThrow().value() < 0.05);
  }

  @Test
  public void whatCannotRepeatSaysSo() {
    SingleCarrier c = carrier(Format.QPSK, PulseShape.rootRaisedCosine(0.35));
    Waveform w = new Modulator(c, Math.PI * RATE).make(1000);
    assertFalse(w.seamless());
    assertTrue(w.note().contains("seam"), w.note());
  }

  /** The mean power is 1; a constant envelope has no crest (identity). */
  @Test
  public void crestIsOverTheMean() {
    SingleCarrier c = carrier(Format.QPSK, new PulseShape(PulseShape.Kind.RECTANGULAR, 0));
    assertEquals(new Modulator(c, 4 * RATE).make(100).crestDb(), 0, 1e-3);
    SingleCarrier rrc = carrier(Format.QPSK, PulseShape.rootRaisedCosine(0.35));
    // About 3.5 to 4 dB over the mean (common practice).
    assertEquals(new Modulator(rrc, 8 * RATE).make(511).crestDb(), 3.7, 0.7);
  }

  @Test
  public void refusesWhatCannotBe() {
    SingleCarrier c = carrier(Format.QPSK, PulseShape.rootRaisedCosine(0.35));
    Refusal slow = expectThrows(Refusal.class, () -> new Modulator(c, RATE));
    assertTrue(slow.getMessage().contains("64.8 kHz"), slow.getMessage());
    expectThrows(Refusal.class, () -> new Modulator(c, 4 * RATE).make(0));
    expectThrows(Refusal.class, () -> new Modulator(c, 4 * RATE).make(Integer.MAX_VALUE));
  }
}
