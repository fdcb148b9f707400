package rovnik.core.listening;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import rovnik.core.modulation.analog.ToneSquelch;

/** When a squelch was open. */
final class Gate {
  /** It closes this much below where it opens, dB. */
  private static final double HYSTERESIS_DB = 1.5;

  /** Slots that it stays open beyond the last that opens it. */
  private static final int HANGS = 5;

  /** A tone is looked for in so many slots around each. */
  private static final int TONE_SLOTS = 30;

  /** And in so many at least. */
  private static final int FEWEST_SLOTS = 15;

  /** A tone stands so far above what noise brings about, as powers. */
  private static final double TONE_STANDS = 60;

  /** A tone is that of a carrier, and not of noise, where noise is less by this. */
  private static final double CARRIER_DB = 6;

  /**
   * Slots that are heard.
   *
   * @param to one after the last
   */
  record Passage(int from, int to) {
    /** Slots at both ends that tell nothing of it: there it is not there yet, or no more. */
    private static final int EDGE = 2;

    int slots() {
      return to - from;
    }

    /** Without its ends, where it is long enough. */
    Passage inner() {
      return slots() > 2 * EDGE ? new Passage(from + EDGE, to - EDGE) : this;
    }
  }

  private Gate() {}

  /**
   * Finds the passages.
   *
   * @param addDb level over dB of full scale
   */
  static List<Passage> passages(Demodulator d, Squelch squelch, double addDb, double noiseBend) {
    int n = d.powers.size();
    return switch (squelch.by()) {
      case NONE -> n == 0 ? List.of() : List.of(new Passage(0, n));
      case LEVEL -> above(n, smooth(n, d.powers::at), k -> levelDb(k) + addDb, squelch.value());
      case QUIETING ->
          above(n, smooth(n, d.bends::at), k -> quietingDb(noiseBend, k), squelch.value());
      case TONE -> tone(d, n, squelch.value(), noiseBend);
    };
  }

  static double levelDb(double power) {
    return 10 * Math.log10(power + 1e-30);
  }

  /** By how much noise is less than without a carrier. */
  static double quietingDb(double noiseBend, double bend) {
    return 10 * Math.log10(noiseBend / Math.max(bend, 1e-30));
  }

  private static double[] smooth(int n, IntToDoubleFunction of) {
    double[] out = new double[n];
    for (int i = 0; i < n; i++) {
      int from = Math.max(0, i - 1);
      int to = Math.min(n, i + 2);
      for (int k = from; k < to; k++) {
        out[i] += of.applyAsDouble(k) / (to - from);
      }
    }
    return out;
  }

  private static List<Passage> above(
      int n, double[] values, java.util.function.DoubleUnaryOperator toDb, double opens) {
    boolean[] open = new boolean[n];
    boolean now = false;
    for (int i = 0; i < n; i++) {
      double db = toDb.applyAsDouble(values[i]);
      now = db >= (now ? opens - HYSTERESIS_DB : opens);
      open[i] = now;
    }
    return joined(open);
  }

  private static List<Passage> joined(boolean[] open) {
    List<Passage> out = new ArrayList<>();
    int from = -1;
    int last = -1;
    for (int i = 0; i < open.length; i++) {
      if (open[i]) {
        from = from < 0 ? i : from;
        last = i;
      } else if (from >= 0 && i - last > HANGS) {
        out.add(new Passage(from, last + 1));
        from = -1;
      }
    }
    if (from >= 0) {
      out.add(new Passage(from, last + 1));
    }
    return out;
  }

  private static List<Passage> tone(Demodulator d, int n, double hz, double noiseBend) {
    double[] bends = smooth(n, d.bends::at);
    double each = d.slotSeconds() * d.slowRateHz();
    // Without a carrier there is but noise, which is louder than any tone.
    boolean[] carrier = new boolean[n];
    for (int i = 0; i < n; i++) {
      carrier[i] = quietingDb(noiseBend, bends[i]) >= CARRIER_DB;
    }
    double[] list = ToneSquelch.list();
    int at = Arrays.binarySearch(list, ToneSquelch.nearest(hz));
    boolean[] open = new boolean[n];
    for (int i = 0; i < n; i++) {
      if (!carrier[i]) {
        continue;
      }
      int first = i;
      int last = i;
      while (first > 0 && i - first < TONE_SLOTS / 2 && carrier[first - 1]) {
        first--;
      }
      while (last < n - 1 && last - first < TONE_SLOTS - 1 && carrier[last + 1]) {
        last++;
      }
      int from = (int) Math.ceil(first * each);
      int to = (int) Math.min(d.slow.size(), (last + 1) * each);
      if (last - first + 1 >= FEWEST_SLOTS) {
        open[i] = isThere(d, from, to, list, at);
      }
    }
    return joined(open);
  }

  private static boolean isThere(Demodulator d, int from, int to, double[] list, int at) {
    double mean = 0;
    for (int k = from; k < to; k++) {
      mean += d.slow.at(k) / (to - from);
    }
    double own = power(d, from, to, list[at], mean);
    double all = 0;
    for (int k = from; k < to; k++) {
      all += Math.pow(d.slow.at(k) - mean, 2) / (to - from);
    }
    double noise = Math.max(0, all - own) * 2 / (to - from);
    return own > TONE_STANDS * noise
        && own > 0
        && (at == 0 || own > power(d, from, to, list[at - 1], mean))
        && (at == list.length - 1 || own > power(d, from, to, list[at + 1], mean));
  }

  /** Power of a tone in the slow values, Hann-weighted so that its neighbours do not leak in. */
  private static double power(Demodulator d, int from, int to, double hz, double mean) {
    double re = 0;
    double im = 0;
    double all = 0;
    for (int k = from; k < to; k++) {
      double w = 1 - Math.cos(2 * Math.PI * (k - from + 0.5) / (to - from));
      double angle = 2 * Math.PI * hz * k / d.slowRateHz();
      re += w * (d.slow.at(k) - mean) * Math.cos(angle);
      im += w * (d.slow.at(k) - mean) * Math.sin(angle);
      all += w;
    }
    return 2 * (re * re + im * im) / (all * all);
  }
}
