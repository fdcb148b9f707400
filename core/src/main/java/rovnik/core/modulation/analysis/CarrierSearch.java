package rovnik.core.modulation.analysis;

import rovnik.core.modulation.Format;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.Transforms;

/**
 * The first of a carrier's frequency and phase: from the line that a power of the symbols has
 * (Viterbi and Viterbi 1983, over frequency), or of an offset format from the two lines of its
 * square.
 */
final class CarrierSearch {
  /** A coarse frequency is this good, in symbol rates. */
  private static final double COARSE = 0.08;

  /** Lines of a power of the symbols that may be the carrier's: data that repeat have others. */
  private static final int CANDIDATES = 6;

  private final Format format;
  private final double[] meanOfPower;
  private final SymbolGrid grid;

  /** Radians a symbol, the likeliest first; symbols at gain 1 that they were found with. */
  private double[] turns = new double[0];

  private double[] rawRe;
  private double[] rawIm;

  /** How far the filter was moved since candidates were found. */
  private double movedHz;

  /**
   * @param meanOfPower of the ideal points, the format's power of each
   */
  CarrierSearch(Format format, double[] meanOfPower, SymbolGrid grid) {
    this.format = format;
    this.meanOfPower = meanOfPower;
    this.grid = grid;
  }

  /** How many frequencies there are to try. */
  int candidates() {
    return turns.length;
  }

  /** The grid has gone to a filter so far away. */
  void moved(double hz) {
    movedHz += hz;
  }

  /** Frequency, phase and gain for a grid whose instants are known. */
  void find() {
    movedHz = 0;
    int count = grid.count;
    double[] re = new double[count];
    double[] im = new double[count];
    grid.turnPerSymbol = 0;
    grid.phase = 0;
    grid.gain = 1;
    grid.read(re, im);
    double power = 0;
    for (int k = 0; k < count; k++) {
      power += re[k] * re[k] + im[k] * im[k];
    }
    grid.gain = Math.sqrt(power / count);
    rawRe = re;
    rawIm = im;
    int length = Integer.highestOneBit(4 * count - 1);
    turns = strongest(length, line(length));
    aim(0);
  }

  /** Squared magnitudes over frequency of the power of the symbols. */
  private float[] line(int length) {
    float[] x = new float[length];
    float[] y = new float[length];
    double down = 1 / grid.gain;
    for (int k = 0; k < rawRe.length; k++) {
      double a = rawRe[k] * down;
      double b = rawIm[k] * down;
      double pr = a;
      double pi = b;
      for (int i = 1; i < format.power(); i++) {
        double t = pr * a - pi * b;
        pi = pr * b + pi * a;
        pr = t;
      }
      x[k] = (float) pr;
      y[k] = (float) pi;
    }
    Transforms.ofLength(length).forward(x, y);
    for (int k = 0; k < length; k++) {
      x[k] = x[k] * x[k] + y[k] * y[k];
    }
    return x;
  }

  /** The highest peaks, as turns of the carrier in a symbol. */
  private double[] strongest(int length, float[] squares) {
    int p = format.power();
    int reach = (int) Math.min(length / 2.0 - 2, COARSE * p * length);
    float[] most = new float[CANDIDATES];
    int[] place = new int[CANDIDATES];
    int found = 0;
    float before = 0;
    float here = squares[-reach & length - 1];
    for (int k = -reach; k <= reach; k++) {
      float next = squares[k + 1 & length - 1];
      if (here >= before && here >= next) {
        int at = found;
        while (at > 0 && most[at - 1] < here) {
          at--;
        }
        if (at < CANDIDATES) {
          System.arraycopy(most, at, most, at + 1, CANDIDATES - at - 1);
          System.arraycopy(place, at, place, at + 1, CANDIDATES - at - 1);
          most[at] = here;
          place[at] = k;
          found = Math.min(CANDIDATES, found + 1);
        }
      }
      before = here;
      here = next;
    }
    double[] out = new double[Math.max(1, found)];
    for (int i = 0; i < found; i++) {
      double cycles = (place[i] + fine(squares, place[i])) / length;
      out[i] = 2 * Math.PI * cycles / p;
    }
    return out;
  }

  /** Takes a frequency that was found, and the phase that goes with it. */
  void aim(int candidate) {
    double turnOfSymbol = turns[candidate];
    int p = format.power();
    double re0 = 0;
    double im0 = 0;
    Turner turner = new Turner(0, -turnOfSymbol, 1 / grid.gain);
    for (int k = 0; k < rawRe.length; k++) {
      double ar = rawRe[k] * turner.cos - rawIm[k] * turner.sin;
      double ai = rawRe[k] * turner.sin + rawIm[k] * turner.cos;
      turner.next();
      double pr = ar;
      double pi = ai;
      for (int i = 1; i < p; i++) {
        double t = pr * ar - pi * ai;
        pi = pr * ai + pi * ar;
        pr = t;
      }
      re0 += pr;
      im0 += pi;
    }
    double turn = 2 * Math.PI * movedHz / grid.band().rateHz();
    grid.phase =
        (Math.atan2(im0, re0) - Math.atan2(meanOfPower[1], meanOfPower[0])) / p
            - turn * grid.firstSample;
    grid.turnPerSymbol = turnOfSymbol - turn * grid.samplesPerSymbol;
  }

  /** Where between bins a line lies, by a parabola through the magnitudes. */
  private static double fine(float[] squares, int k) {
    int mask = squares.length - 1;
    double a = Math.sqrt(squares[k - 1 & mask]);
    double b = Math.sqrt(squares[k & mask]);
    double c = Math.sqrt(squares[k + 1 & mask]);
    double curve = a - 2 * b + c;
    return curve < 0 ? Math.max(-0.5, Math.min(0.5, (a - c) / 2 / curve)) : 0;
  }

  /**
   * An offset format: its square has lines one symbol rate to both sides of twice the carrier,
   * whose phases tell the instant by their difference and the carrier by their sum.
   *
   * @param guard symbols before the first that counts
   */
  void findOffset(int guard) {
    movedHz = 0;
    turns = new double[0];
    BandTaker.Band band = grid.band();
    double samplesPerSymbol = grid.samplesPerSymbol;
    int n = band.samples();
    int length = Integer.highestOneBit(2 * n - 1);
    float[] x = new float[length];
    float[] y = new float[length];
    for (int i = 0; i < n; i++) {
      double a = band.re()[i];
      double b = band.im()[i];
      x[i] = (float) (a * a - b * b);
      y[i] = (float) (2 * a * b);
    }
    Transforms.ofLength(length).forward(x, y);
    float[] squares = new float[length];
    for (int k = 0; k < length; k++) {
      squares[k] = x[k] * x[k] + y[k] * y[k];
    }
    double rateBins = length / samplesPerSymbol;
    int reach = (int) (2 * COARSE * rateBins);
    int best = 0;
    double most = -1;
    for (int k = -reach; k <= reach; k++) {
      double v = Math.sqrt(squares[(int) Math.rint(k + rateBins) & length - 1]);
      v += Math.sqrt(squares[(int) Math.rint(k - rateBins) & length - 1]);
      if (v > most) {
        most = v;
        best = k;
      }
    }
    int high = (int) Math.rint(best + rateBins);
    int low = (int) Math.rint(best - rateBins);
    double twice = (high + fine(squares, high) + low + fine(squares, low)) / 2.0 / length;
    double perSample = 2 * Math.PI * twice / 2;
    // Both lines at their own places, summed from the first symbol that counts on.
    double start = guard * samplesPerSymbol;
    int from = (int) Math.ceil(start);
    int to = (int) Math.min(n, start + grid.count * samplesPerSymbol);
    double[] plus = new double[2];
    double[] minus = new double[2];
    double symbol = 2 * Math.PI / samplesPerSymbol;
    double power = 0;
    for (int i = from; i < to; i++) {
      double a = band.re()[i];
      double b = band.im()[i];
      double re = a * a - b * b;
      double im = 2 * a * b;
      add(plus, re, im, -(2 * perSample + symbol) * i);
      add(minus, re, im, -(2 * perSample - symbol) * i);
      power += a * a + b * b;
    }
    double anglePlus = Math.atan2(plus[1], plus[0]);
    double angleMinus = Math.atan2(minus[1], minus[0]);
    double instant = (angleMinus - anglePlus) / 2 / (2 * Math.PI);
    grid.firstSample = (guard + instant - Math.floor(instant)) * samplesPerSymbol;
    grid.turnPerSymbol = perSample * samplesPerSymbol;
    grid.phase = (angleMinus + anglePlus) / 4 + perSample * grid.firstSample;
    grid.gain = Math.sqrt(power / Math.max(1, to - from));
  }

  private static void add(double[] sum, double re, double im, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    sum[0] += re * c - im * s;
    sum[1] += re * s + im * c;
  }
}
