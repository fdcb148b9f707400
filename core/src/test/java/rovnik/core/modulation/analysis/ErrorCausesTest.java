package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;

/** The error vector is given to the causes that were put in. */
public class ErrorCausesTest {
  private static final int SYMBOLS = 3000;
  private static final double SPS = 4;

  /** Faults of the samples of a carrier of mean power 1. */
  private enum Fault {
    AM_AM("Compression (AM-AM)") {
      @Override
      void put(float[] iq, Random random) {
        each(iq, (p, y) -> scale(y, 1 - 0.06 * (p - 1), 0));
      }
    },
    AM_PM("Turn with level (AM-PM)") {
      @Override
      void put(float[] iq, Random random) {
        each(iq, (p, y) -> scale(y, 1, Math.toRadians(4) * (p - 1)));
      }
    },
    ECHO("Ripple and group delay") {
      @Override
      void put(float[] iq, Random random) {
        int late = (int) (2 * SPS);
        for (int i = iq.length - 1; i >= 2 * late; i--) {
          iq[i] += (float) (0.02 * iq[i - 2 * late]);
        }
      }
    },
    SPUR("Spur") {
      @Override
      void put(float[] iq, Random random) {
        for (int m = 0; m < iq.length / 2; m++) {
          double turn = 2 * Math.PI * 0.0713 * m;
          iq[2 * m] += (float) (0.02 * Math.cos(turn));
          iq[2 * m + 1] += (float) (0.02 * Math.sin(turn));
        }
      }
    },
    PHASE_NOISE("Phase noise") {
      @Override
      void put(float[] iq, Random random) {
        double phase = 0;
        double[] y = new double[2];
        for (int m = 0; m < iq.length / 2; m++) {
          phase = 0.95 * phase + 0.0062 * random.nextGaussian();
          y[0] = iq[2 * m];
          y[1] = iq[2 * m + 1];
          scale(y, 1, phase);
          iq[2 * m] = (float) y[0];
          iq[2 * m + 1] = (float) y[1];
        }
      }
    },
    LEAKAGE("Carrier leakage") {
      @Override
      void put(float[] iq, Random random) {
        for (int i = 0; i < iq.length; i++) {
          iq[i] += 0.014f;
        }
      }
    },
    IMBALANCE("Gain imbalance") {
      @Override
      void put(float[] iq, Random random) {
        for (int i = 0; i < iq.length; i += 2) {
          iq[i] *= 1.02f;
          iq[i + 1] *= 0.98f;
        }
      }
    },
    NOISE("Noise") {
      @Override
      void put(float[] iq, Random random) {
        for (int i = 0; i < iq.length; i++) {
          iq[i] += (float) (0.02 * Math.sqrt(SPS / 2) * random.nextGaussian());
        }
      }
    };

    final String label;

    Fault(String label) {
      this.label = label;
    }

    abstract void put(float[] iq, Random random);

    interface Change {
      void of(double power, double[] y);
    }

    private static void each(float[] iq, Change change) {
      double[] y = new double[2];
      for (int m = 0; m < iq.length / 2; m++) {
        y[0] = iq[2 * m];
        y[1] = iq[2 * m + 1];
        change.of(y[0] * y[0] + y[1] * y[1], y);
        iq[2 * m] = (float) y[0];
        iq[2 * m + 1] = (float) y[1];
      }
    }

    private static void scale(double[] y, double gain, double angle) {
      double c = gain * Math.cos(angle);
      double s = gain * Math.sin(angle);
      double x = y[0] * c - y[1] * s;
      y[1] = y[0] * s + y[1] * c;
      y[0] = x;
    }
  }

  private static Outcome with(Format format, List<Fault> faults, double size) {
    Random random = new Random(11);
    SingleCarrier c = RecoveryTest.carrier(format, 0.35);
    Carriers.Faults clean = new Carriers.Faults();
    clean.level = 1;
    clean.phase = 0;
    int[] values = Carriers.values(random, c.constellation().size(), SYMBOLS);
    float[] iq = Carriers.make(format, values, 0.35, SPS, clean, random);
    for (Fault f : faults) {
      float[] before = iq.clone();
      f.put(iq, new Random(1100 + f.ordinal()));
      for (int i = 0; i < iq.length; i++) {
        iq[i] = (float) (before[i] + size * (iq[i] - before[i]));
      }
    }
    return SingleCarrierMeasurementTest.measure(c, iq);
  }

  /** Mean squares by cause, in percent of percent. */
  private static Map<String, Double> split(Outcome o) {
    Map<String, Double> out = new LinkedHashMap<>();
    double all = Math.pow(SingleCarrierMeasurementTest.value(o, "evm"), 2);
    for (ResultTable.Row r : o.table("causes").orElseThrow().rows()) {
      out.put(r.cells().get(0).text(), r.cells().get(1).value() / 100 * all);
    }
    return out;
  }

  @DataProvider
  public Object[][] faults() {
    List<Object[]> rows = new ArrayList<>();
    for (Format f : new Format[] {Format.QPSK, Format.QAM16, Format.QAM64}) {
      for (Fault fault : Fault.values()) {
        rows.add(new Object[] {f, fault});
      }
    }
    return rows.toArray(Object[][]::new);
  }

  @Test(dataProvider = "faults")
  public void aloneItGetsAtLeast95Percent(Format format, Fault fault) {
    Outcome o = with(format, List.of(fault), 1);
    Map<String, Double> split = split(o);
    double all = Math.pow(SingleCarrierMeasurementTest.value(o, "evm"), 2);
    assertTrue(
        split.getOrDefault(fault.label, 0.0) > 0.95 * all,
        fault.label + " has " + split + " of " + all + "; " + o.summary());
  }

  @DataProvider
  public Object[][] mixtures() {
    return new Object[][] {
      {List.of(Fault.LEAKAGE, Fault.IMBALANCE, Fault.AM_PM, Fault.NOISE)},
      {List.of(Fault.AM_AM, Fault.SPUR, Fault.NOISE)},
      {List.of(Fault.PHASE_NOISE, Fault.LEAKAGE, Fault.NOISE)},
      {List.of(Fault.IMBALANCE, Fault.ECHO, Fault.SPUR, Fault.NOISE)},
    };
  }

  /** Together each keeps, within 10 %, what it makes alone; the shares add up to the whole. */
  @Test(dataProvider = "mixtures")
  public void inMixturesEachKeepsItsOwn(List<Fault> faults) {
    for (Format format : new Format[] {Format.QPSK, Format.QAM64}) {
      for (double size : new double[] {1, 0.4}) {
        Outcome together = with(format, faults, size);
        Map<String, Double> split = split(together);
        double all = Math.pow(SingleCarrierMeasurementTest.value(together, "evm"), 2);
        for (Fault f : faults) {
          double alone =
              Math.pow(
                  SingleCarrierMeasurementTest.value(with(format, List.of(f), size), "evm"), 2);
          double given = split.getOrDefault(f.label, 0.0);
          assertEquals(
              given, alone, 0.1 * alone, format + " " + size + " " + f.label + " of " + split);
        }
        assertEquals(
            split.values().stream().mapToDouble(v -> v).sum(), all, 1e-6 * all, "shares add up");
        assertTrue(Math.abs(split.get("Not explained")) < 0.1 * all, split.toString());
      }
    }
  }

  /** The line is named by its distance from the carrier. */
  @Test
  public void aSpurIsNamedWithItsFrequency() {
    Outcome o = with(Format.QPSK, List.of(Fault.SPUR), 1);
    ResultTable.Row row = o.table("causes").orElseThrow().rows().get(0);
    // 0.0713 of a sample is 0.2852 of a symbol at four samples each.
    String evidence = row.cells().get(4).text();
    assertTrue(evidence.contains("+13689.6 Hz at -34.0 dBc"), evidence + split(o) + o.summary());
  }
}
