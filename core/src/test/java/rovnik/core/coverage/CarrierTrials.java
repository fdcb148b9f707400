package rovnik.core.coverage;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.SymbolStream;
import rovnik.core.modulation.analysis.Carriers;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Carriers with data whose faults are known. */
final class CarrierTrials {
  private static final double RATE = 48e3;
  private static final double SAMPLES_PER_SYMBOL = 4;
  private static final int SYMBOLS = 560;

  private CarrierTrials() {}

  private static List<Reading> measure(Format format, Carriers.Faults f, Random random) {
    SingleCarrier c =
        new SingleCarrier(
            format,
            RATE,
            PulseShape.rootRaisedCosine(0.35),
            List.of(),
            Payload.of(Prbs.PN15),
            Framing.NONE);
    int from = random.nextInt(5000);
    int[] all = SymbolStream.values(c, from + SYMBOLS);
    int[] values = java.util.Arrays.copyOfRange(all, from, from + SYMBOLS);
    float[] iq = Carriers.make(format, values, 0.35, SAMPLES_PER_SYMBOL, f, random);
    return new SingleCarrierMeasurement(
            new SingleCarrierSettings(c, 0, 0, 0, 0, null, false, true, Double.NaN))
        .of(
            new IqRecord(iq, SAMPLES_PER_SYMBOL * RATE, 100e6, Double.NaN, false),
            MeasurementContext.BARE)
        .readings();
  }

  private static Carriers.Faults unknowns(Random random, double noiseDb) {
    Carriers.Faults f = new Carriers.Faults();
    f.noiseDb = noiseDb;
    f.delaySymbols = random.nextDouble();
    f.phase = 6 * random.nextDouble();
    f.frequency = 0.1 * (random.nextDouble() - 0.5);
    f.level = 0.2 + 0.3 * random.nextDouble();
    return f;
  }

  /** Noise alone: errors of symbols against what so much noise makes (Rayleigh's distribution). */
  static void noise(Coverage c) {
    Random random = new Random(31);
    for (Format format : new Format[] {Format.QPSK, Format.QAM16}) {
      for (double noiseDb : new double[] {-20, -35}) {
        for (int k = 0; k < Coverage.TRIALS; k++) {
          List<Reading> r = measure(format, unknowns(random, noiseDb), random);
          double noise = Math.pow(10, noiseDb / 20);
          String set = "data in noise";
          c.note(set, r, "evm", 100 * noise);
          c.note(set, r, "mer", -noiseDb);
          c.note(set, r, "evm95", 100 * noise * Math.sqrt(-Math.log(0.05)));
          c.note(set, r, "magnitudeError", 100 * noise / Math.sqrt(2));
          c.note(set, r, "phaseError", Math.toDegrees(noise / Math.sqrt(2)));
          c.note(set, r, "rho", 1 / (1 + noise * noise));
        }
      }
    }
  }

  /**
   * Phase noise, whose errors hang together: against what all trials have in the mean, since the
   * measurement follows the slowest of it.
   */
  static void phaseNoise(Coverage c) {
    Random random = new Random(33);
    for (Format format : new Format[] {Format.QPSK, Format.QAM16}) {
      for (double memory : new double[] {3, 20}) {
        List<List<Reading>> all = new ArrayList<>();
        double square = 0;
        for (int k = 0; k < Coverage.TRIALS; k++) {
          Carriers.Faults f = unknowns(random, -60);
          f.phaseNoise = 0.02;
          f.phaseMemorySymbols = memory;
          List<Reading> r = measure(format, f, random);
          all.add(r);
          double evm =
              r.stream().filter(x -> x.id().equals("evm")).findFirst().orElseThrow().value();
          square += evm * evm / Coverage.TRIALS;
        }
        for (List<Reading> r : all) {
          String set = "data in phase noise";
          c.note(set, r, "evm", Math.sqrt(square));
          c.note(set, r, "mer", -20 * Math.log10(Math.sqrt(square) / 100));
        }
      }
    }
  }

  /** Faults beside one another, and what is unknown of any carrier. */
  static void faults(Coverage c) {
    Random random = new Random(32);
    for (Format format : new Format[] {Format.QPSK, Format.QAM16}) {
      for (double noiseDb : new double[] {-20, -35}) {
        for (int k = 0; k < Coverage.TRIALS; k++) {
          Carriers.Faults f = unknowns(random, noiseDb);
          f.imbalanceDb = 0.6 * (random.nextDouble() - 0.5);
          f.quadratureDegrees = 3 * (random.nextDouble() - 0.5);
          f.leakDb = -38 + 8 * random.nextDouble();
          f.delayQSymbols = 0.03 * (random.nextDouble() - 0.5);
          f.clockPpm = 20 * (random.nextDouble() - 0.5);
          List<Reading> r = measure(format, f, random);
          String set = "data with faults";
          c.note(set, r, "frequencyError", f.frequency * RATE);
          c.note(set, r, "symbolRateError", f.clockPpm);
          c.note(set, r, "gainImbalance", f.imbalanceDb);
          c.note(set, r, "quadratureError", f.quadratureDegrees);
          c.note(set, r, "iqDelay", f.delayQSymbols / RATE);
          c.note(set, r, "iqOffset", f.leakDb);
          c.note(set, r, "droop", 0);
          if (format == Format.QPSK) {
            c.note(set, r, "carrierPower", 20 * Math.log10(f.level));
          }
        }
      }
    }
  }
}
