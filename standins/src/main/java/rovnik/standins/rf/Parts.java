package rovnik.standins.rf;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleFunction;
import rovnik.standins.world.Truth;

/**
 * The parts of the harbour as they really are, from lines, resonators and pads; and files that the
 * user put here.
 */
public final class Parts {
  public static final String PREAMPLIFIER = "Shore preamplifier";
  public static final String THROUGH = "Through";

  /** Elements of a 0.1 dB Chebyshev prototype of order 5. */
  private static final double[] PROTOTYPE = {1.1468, 1.3712, 1.9750, 1.3712, 1.1468};

  private final Map<String, DoubleFunction<Scatter>> models = new LinkedHashMap<>();

  public Parts() {
    models.put(THROUGH, f -> Scatter.THROUGH);
    models.put("Open", f -> Scatter.apart(open(f), open(f)));
    models.put("Short", f -> Scatter.apart(shorted(f), shorted(f)));
    models.put("Load", f -> Scatter.apart(load(f), load(f)));
    models.put("Adapter", Parts::adapter);
    models.put("Pad 10 dB", f -> pad(f, 10));
    models.put("Pad 20 dB", f -> pad(f, 20));
    models.put(
        "Line 0.5 m with open end",
        f -> {
          Complex end = Scatter.cable(f, 0.5, 0.7, 50, 0.3).reflection(open(f));
          return Scatter.apart(end, end);
        });
    models.put("Feeder", Parts::feeder);
    models.put("Cavity filter", Parts::cavityFilter);
    models.put(PREAMPLIFIER, Parts::preamplifier);
    models.put("Mast whip", f -> Scatter.apart(whip(f), Complex.ONE));
    models.put("Fixture empty", f -> fixture(f, null));
    models.put("Fixture shorted", f -> fixture(f, new Complex(0.4, 2 * Math.PI * f * 9e-9)));
    models.put("Choke A", f -> fixture(f, tank(f, 800, 42e-6, 1.6e-12)));
    models.put("Choke B", f -> fixture(f, tank(f, 8500, 330e-6, 1.9e-12)));
    models.put("Front-end coil", Parts::tunedCircuit);
    models.put("Crystal", Parts::crystal);
  }

  public List<String> names() {
    return new ArrayList<>(models.keySet());
  }

  boolean amplifies(String name) {
    return name.equals(PREAMPLIFIER);
  }

  Scatter at(String name, double hz) {
    return models.get(name).apply(hz);
  }

  /** Adds a part from measured data; straight between its points, its ends beyond them. */
  public void add(String name, double[] hz, double[][] s) {
    models.put(
        name,
        f -> {
          int i = 0;
          while (i < hz.length - 2 && hz[i + 1] < f) {
            i++;
          }
          int k = Math.min(i + 1, hz.length - 1);
          double share = k == i ? 0 : Math.max(0, Math.min(1, (f - hz[i]) / (hz[k] - hz[i])));
          Complex[] v = new Complex[4];
          for (int n = 0; n < 4; n++) {
            v[n] =
                new Complex(
                    s[i][2 * n] + share * (s[k][2 * n] - s[i][2 * n]),
                    s[i][2 * n + 1] + share * (s[k][2 * n + 1] - s[i][2 * n + 1]));
          }
          return new Scatter(v[0], v[1], v[2], v[3]);
        });
  }

  /** Reflection of an impedance behind a lossy offset of 50 ohm, by its voltage and current. */
  private static Complex offset(double hz, double seconds, double gigaohmPerSecond, Complex ohm) {
    double neper = gigaohmPerSecond * 1e9 * seconds / 100 * Math.sqrt(hz / 1e9);
    Complex tanh = new Complex(neper, 2 * Math.PI * hz * seconds + neper).tanh();
    Complex in = ohm.add(tanh.multiply(50)).divide(Complex.ONE.add(ohm.divide(50).multiply(tanh)));
    return in.subtract(50).divide(in.add(50));
  }

  static Complex open(double hz) {
    double farad = Truth.KIT_OPEN_FARAD + Truth.KIT_OPEN_FARAD_PER_HZ * hz;
    Complex ohm = new Complex(0, -1 / (2 * Math.PI * hz * farad));
    return offset(hz, Truth.KIT_OPEN_SECONDS, Truth.KIT_GIGAOHM_PER_SECOND, ohm);
  }

  static Complex shorted(double hz) {
    Complex ohm = new Complex(0, 2 * Math.PI * hz * Truth.KIT_SHORT_HENRY);
    return offset(hz, Truth.KIT_SHORT_SECONDS, Truth.KIT_GIGAOHM_PER_SECOND, ohm);
  }

  static Complex load(double hz) {
    // A few picohenry of its wire that the kit's file does not know of.
    Complex ohm = new Complex(Truth.KIT_LOAD_OHM, 2 * Math.PI * hz * 8e-12);
    return ohm.subtract(50).divide(ohm.add(50));
  }

  private static Scatter adapter(double hz) {
    return Scatter.cable(hz, 0.021, 0.7, 52, 0.1).then(Scatter.cable(hz, 0.018, 0.7, 49, 0.1));
  }

  /** A T of three resistors that are a little off, between two short lines. */
  static Scatter pad(double hz, double db) {
    double k = Math.pow(10, db / 20);
    Complex arm = new Complex(50 * (k - 1) / (k + 1) * 1.012);
    Complex leg = new Complex((k * k - 1) / (2 * 50 * k) * 1.004);
    Scatter end = Scatter.cable(hz, 0.009, 0.7, 50, 0.05);
    return end.then(Scatter.series(arm))
        .then(Scatter.shunt(leg))
        .then(Scatter.series(arm))
        .then(end);
  }

  private static Scatter feeder(double hz) {
    double spot = Truth.FEEDER_SPOT_METRES;
    double length = Truth.FEEDER_SPOT_LENGTH_METRES;
    double v = Truth.FEEDER_VELOCITY_FACTOR;
    double loss = Truth.FEEDER_DB_PER_METRE;
    return Scatter.cable(hz, spot, v, 50, loss)
        .then(Scatter.cable(hz, length, v, Truth.FEEDER_SPOT_OHM, loss))
        .then(Scatter.cable(hz, Truth.FEEDER_METRES - spot - length, v, 50, loss));
  }

  private static Scatter cavityFilter(double hz) {
    double relative = 0.97 * Truth.FILTER_WIDTH_HZ / Truth.FILTER_HZ;
    double off = hz / Truth.FILTER_HZ - Truth.FILTER_HZ / hz;
    Scatter all = Scatter.THROUGH;
    for (int k = 0; k < PROTOTYPE.length; k++) {
      // Each resonator as the prototype's element at the shifted frequency, with its loss.
      Complex at = new Complex(1 / (relative * Truth.FILTER_UNLOADED_Q), off / relative);
      Complex value = at.multiply(PROTOTYPE[k]);
      all =
          all.then(
              k % 2 == 0 ? Scatter.shunt(value.divide(50)) : Scatter.series(value.multiply(50)));
    }
    Complex leak = Scatter.turn(hz, 2e-9).multiply(Math.pow(10, Truth.FILTER_LEAK_DB / 20));
    return new Scatter(all.s11(), all.s12().add(leak), all.s21().add(leak), all.s22());
  }

  private static Scatter preamplifier(double hz) {
    double slope = Truth.PREAMP_FALL_DB / (Truth.PREAMP_TO_HZ - Truth.PREAMP_FROM_HZ);
    double inBand = Math.min(Math.max(hz, Truth.PREAMP_FROM_HZ), Truth.PREAMP_TO_HZ);
    double away = Math.abs(Math.log(hz / inBand) / Math.log(2));
    double gain = Truth.PREAMP_GAIN_DB - slope * (inBand - 458e6) - 12 * away;
    double worse = 1 + 0.5 * Math.min(1, Math.pow((hz - 458e6) / 200e6, 2));
    return new Scatter(
        Scatter.turn(hz, 0.8e-9).multiply(Math.pow(10, -14.0 / 20) * worse),
        Scatter.turn(hz, 1.5e-9).multiply(Math.pow(10, -32.0 / 20)),
        Scatter.turn(hz, 2.1e-9).multiply(-Math.pow(10, gain / 20)),
        Scatter.turn(hz, 0.5e-9).multiply(Math.pow(10, -12.0 / 20) * worse));
  }

  /** A whip near its quarter wave, and the transformer that brings it to 50 ohm. */
  private static Complex whip(double hz) {
    double off = hz / 160e6 - 160e6 / hz;
    Complex rod = new Complex(36.5 * hz / 160e6, 36.5 * 5.2 * off);
    double turns = Math.sqrt(46 / 36.5);
    Complex ohm = rod.multiply(turns * turns);
    return ohm.subtract(50).divide(ohm.add(50));
  }

  /** Two clips with a little capacitance between them, and what is clamped in. */
  private static Scatter fixture(double hz, Complex ohm) {
    Complex between = new Complex(0, 2 * Math.PI * hz * 0.055e-12);
    Complex siemens = ohm == null ? between : between.add(ohm.reciprocal());
    Scatter clip = Scatter.shunt(new Complex(0, 2 * Math.PI * hz * 0.7e-12));
    return clip.then(Scatter.series(siemens.reciprocal())).then(clip);
  }

  private static Complex tank(double hz, double ohm, double henry, double farad) {
    double w = 2 * Math.PI * hz;
    return new Complex(1 / ohm, w * farad - 1 / (w * henry)).reciprocal();
  }

  /** 27 nF and its coil from the line to ground. */
  private static Scatter tunedCircuit(double hz) {
    double w = 2 * Math.PI * hz;
    double w0 = 2 * Math.PI * Truth.COIL_RESONANCE_HZ;
    double henry = 1 / (w0 * w0 * Truth.COIL_FARAD);
    Complex coil = new Complex(w0 * henry / Truth.COIL_Q, w * henry);
    return Scatter.shunt(coil.reciprocal().add(new Complex(0, w * Truth.COIL_FARAD)));
  }

  /** Motional arm and holder of a crystal, between two clips. */
  private static Scatter crystal(double hz) {
    double w = 2 * Math.PI * hz;
    double w0 = 2 * Math.PI * Truth.CRYSTAL_HZ;
    double henry = Truth.CRYSTAL_OHM * Truth.CRYSTAL_Q / w0;
    Complex arm = new Complex(Truth.CRYSTAL_OHM, w * henry - w0 * w0 * henry / w);
    Complex holder = new Complex(0, w * Truth.CRYSTAL_HOLDER_FARAD);
    return Scatter.series(arm.reciprocal().add(holder).reciprocal());
  }
}
