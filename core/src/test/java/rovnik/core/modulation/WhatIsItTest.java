package rovnik.core.modulation;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.WhatIsIt;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Unknown carriers are told from nothing but their samples, and what is none is refused. */
public class WhatIsItTest {
  private static final double RATE_HZ = 1e6;

  /** A format, its symbol rate, roll-off, place, and signal over noise in the symbol rate. */
  @DataProvider
  public Object[][] carriers() {
    return new Object[][] {
      {Format.BPSK, 61.7e3, 0.5, 30e3, 20.0},
      {Format.QPSK, 48.3e3, 0.35, -210e3, 18.0},
      {Format.PI4_DQPSK, 75.1e3, 0.35, 4e3, 24.0},
      {Format.PSK8, 111e3, 0.25, 55e3, 26.0},
      {Format.QAM16, 250e3, 0.25, -20e3, 30.0},
      {Format.APSK16, 97.3e3, 0.2, 120e3, 30.0},
      {Format.QAM32, 130e3, 0.3, 0.0, 34.0},
      {Format.QAM64, 88.8e3, 0.22, 77e3, 38.0},
      {Format.QAM256, 200e3, 0.15, 10e3, 46.0}
    };
  }

  private static IqRecord record(
      Waveform w, double offsetHz, double noise, int samples, long seed) {
    Random random = new Random(seed);
    float[] iq = new float[2 * samples];
    for (int n = 0; n < samples; n++) {
      double angle = 2 * Math.PI * offsetHz / RATE_HZ * n + 1;
      double re = w.iq()[2 * n];
      double im = w.iq()[2 * n + 1];
      iq[2 * n] =
          (float)
              (0.1 * (re * Math.cos(angle) - im * Math.sin(angle) + noise * random.nextGaussian()));
      iq[2 * n + 1] =
          (float)
              (0.1 * (re * Math.sin(angle) + im * Math.cos(angle) + noise * random.nextGaussian()));
    }
    return new IqRecord(iq, RATE_HZ, 400e6, Double.NaN, false);
  }

  @Test(dataProvider = "carriers")
  public void unknownCarriers(
      Format format, double symbolRateHz, double rollOff, double offsetHz, double snrDb) {
    SingleCarrier c =
        new SingleCarrier(
            format,
            symbolRateHz,
            PulseShape.rootRaisedCosine(rollOff),
            List.of(),
            Payload.of(Prbs.ofOrder(23)),
            Framing.NONE);
    Waveform w = new Modulator(c, RATE_HZ).make((int) (0.045 * symbolRateHz));
    double noise = Math.pow(10, -snrDb / 20) * Math.sqrt(RATE_HZ / symbolRateHz / 2);
    Outcome o =
        new WhatIsIt(0, 0).of(record(w, offsetHz, noise, 40_000, 5), MeasurementContext.BARE);
    assertTrue(o.summary().startsWith(format.label() + ","), o.summary());
    assertTrue(o.summary().contains("sure") || o.summary().contains("likely"), o.summary());
    Reading rate = o.reading("symbolRate").orElseThrow();
    assertEquals(rate.value(), symbolRateHz, symbolRateHz * 2e-4, o.summary());
    Reading shape = o.reading("rollOff").orElseThrow();
    assertEquals(shape.value(), rollOff, shape.uncertainty() + 1e-9, o.summary());
    assertTrue(shape.uncertainty() <= 0.25, "U of the roll-off " + shape.uncertainty());
    assertEquals(
        o.reading("carrierFrequency").orElseThrow().value() - 400e6,
        offsetHz,
        symbolRateHz * 1e-3,
        o.summary());
  }

  /** A format, symbol rate, deviation, B T or 0, place, and carrier over noise in the rate. */
  @DataProvider
  public Object[][] keyed() {
    return new Object[][] {
      {Format.MSK, 100e3, 25e3, 0.0, 40e3, 25.0},
      {Format.GMSK, 50e3, 12.5e3, 0.3, -90e3, 25.0},
      {Format.GMSK, 83e3, 20.75e3, 0.5, 0.0, 28.0},
      {Format.GMSK, 60e3, 15e3, 0.4, 20e3, 28.0},
      {Format.FSK2, 40e3, 30e3, 0.0, 25e3, 25.0},
      {Format.FSK2, 62e3, 20e3, 0.5, -25e3, 28.0},
      {Format.FSK4, 30e3, 45e3, 0.0, 10e3, 28.0},
    };
  }

  @Test(dataProvider = "keyed")
  public void unknownKeyedFrequencies(
      Format format,
      double symbolRateHz,
      double deviationHz,
      double bt,
      double offsetHz,
      double snrDb) {
    PulseShape filter =
        bt > 0
            ? new PulseShape(PulseShape.Kind.GAUSSIAN, bt)
            : new PulseShape(PulseShape.Kind.RECTANGULAR, 0);
    SingleCarrier c =
        new SingleCarrier(
            format,
            symbolRateHz,
            filter,
            List.of(),
            Payload.of(Prbs.ofOrder(23)),
            Framing.NONE,
            format.minimumShift() ? 0 : deviationHz);
    Waveform w = new Modulator(c, RATE_HZ).make((int) (0.045 * symbolRateHz));
    double noise = Math.pow(10, -snrDb / 20) * Math.sqrt(RATE_HZ / symbolRateHz / 2);
    Outcome o =
        new WhatIsIt(0, 0).of(record(w, offsetHz, noise, 40_000, 5), MeasurementContext.BARE);
    assertTrue(o.summary().startsWith(format.label() + ","), o.summary());
    assertTrue(o.summary().contains("sure"), o.summary());
    assertEquals(o.reading("symbolRate").orElseThrow().value(), symbolRateHz, symbolRateHz * 3e-4);
    Reading deviation = o.reading("deviation").orElseThrow();
    assertEquals(deviation.value(), deviationHz, 0.02 * deviationHz, o.summary());
    assertEquals(
        o.reading("carrierFrequency").orElseThrow().value() - 400e6, offsetHz, symbolRateHz * 2e-3);
    if (bt > 0) {
      Reading product = o.reading("bt").orElseThrow();
      assertEquals(product.value(), bt, product.uncertainty(), o.summary());
      assertTrue(product.uncertainty() <= 0.13, "U of B T " + product.uncertainty());
    }
  }

  @Test
  public void whatIsNoCarrierWithDataIsSaid() {
    int n = 40_000;
    Waveform nothing = new Waveform(new float[2 * n], RATE_HZ, true, "");
    Refusal noise =
        expectThrows(
            Refusal.class,
            () -> new WhatIsIt(0, 0).of(record(nothing, 0, 1, n, 1), MeasurementContext.BARE));
    assertTrue(noise.getMessage().contains("Nothing stands out"), noise.getMessage());
    float[] one = new float[2 * n];
    for (int i = 0; i < n; i++) {
      one[2 * i] = 1;
    }
    Waveform tone = new Waveform(one, RATE_HZ, true, "");
    Refusal line =
        expectThrows(
            Refusal.class,
            () -> new WhatIsIt(0, 0).of(record(tone, 5e4, 0.01, n, 1), MeasurementContext.BARE));
    assertTrue(line.getMessage().contains("a line"), line.getMessage());
    float[] voice = new float[2 * n];
    double phase = 0;
    Random random = new Random(3);
    double follows = 0;
    for (int i = 0; i < n; i++) {
      follows = 0.999 * follows + random.nextGaussian();
      phase += 2 * Math.PI * 1500 * follows / RATE_HZ;
      voice[2 * i] = (float) Math.cos(phase);
      voice[2 * i + 1] = (float) Math.sin(phase);
    }
    Waveform fm = new Waveform(voice, RATE_HZ, true, "");
    try {
      Outcome o = new WhatIsIt(0, 0).of(record(fm, 0, 0.003, n, 1), MeasurementContext.BARE);
      assertTrue(o.summary().contains("none of the formats"), o.summary());
    } catch (Refusal r) {
      assertTrue(r.getMessage().contains("no line at a symbol rate"), r.getMessage());
    }
  }
}
