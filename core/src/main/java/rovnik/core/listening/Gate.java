package rovnik.core.listening;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.modulation.analog.ToneSquelch;

/** When a squelch was open. */
final class Gate {
  /** It closes this much below where it opens, dB. */
  private static final double HYSTERESIS_DB = 1.5;

  /** Slots that it stays open beyond the last that opens it. */
  static final int HANGS = 5;

  /** A tone is looked for in so many slots around each. */
  static final int TONE_SLOTS = 30;

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
    if (squelch.by() == Squelch.By.NONE) {
      return n == 0 ? List.of() : List.of(new Passage(0, n));
    }
    Opening opening = new Opening(d, squelch, addDb, noiseBend);
    boolean[] open = new boolean[n];
    for (int i = 0; i < n; i++) {
      open[i] = opening.opens(i, n);
    }
    return joined(open);
  }

  static double levelDb(double power) {
    return 10 * Math.log10(power + 1e-30);
  }

  /** By how much noise is less than without a carrier. */
  static double quietingDb(double noiseBend, double bend) {
    return 10 * Math.log10(noiseBend / Math.max(bend, 1e-30));
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

  /** What of each slot opens a squelch; slots are asked for in their order. */
  static final class Opening {
    private final Demodulator d;
    private final Squelch squelch;
    private final double addDb;
    private final double noiseBend;
    private final double[] list = ToneSquelch.list();
    private boolean now;

    Opening(Demodulator d, Squelch squelch, double addDb, double noiseBend) {
      this.d = d;
      this.squelch = squelch;
      this.addDb = addDb;
      this.noiseBend = noiseBend;
    }

    /** So many slots after one tell of it. */
    int ahead() {
      return switch (squelch.by()) {
        case NONE -> 0;
        case LEVEL, QUIETING -> 1;
        case TONE -> TONE_SLOTS / 2;
      };
    }

    /**
     * True if a slot is open by itself.
     *
     * @param n slots that are known
     */
    boolean opens(int i, int n) {
      return switch (squelch.by()) {
        case NONE -> true;
        case LEVEL -> above(levelDb(smooth(d.powers, i, n)) + addDb);
        case QUIETING -> above(quietingDb(noiseBend, smooth(d.bends, i, n)));
        case TONE -> hasTone(i, n);
      };
    }

    private boolean above(double db) {
      now = db >= (now ? squelch.value() - HYSTERESIS_DB : squelch.value());
      return now;
    }

    private static double smooth(Growing of, int i, int n) {
      int from = Math.max(0, i - 1);
      int to = Math.min(n, i + 2);
      double sum = 0;
      for (int k = from; k < to; k++) {
        sum += of.at(k);
      }
      return sum / (to - from);
    }

    /** Without a carrier there is but noise, which is louder than any tone. */
    private boolean carrier(int i, int n) {
      return quietingDb(noiseBend, smooth(d.bends, i, n)) >= CARRIER_DB;
    }

    private boolean hasTone(int i, int n) {
      if (!carrier(i, n)) {
        return false;
      }
      int first = i;
      int last = i;
      while (first > 0 && i - first < TONE_SLOTS / 2 && carrier(first - 1, n)) {
        first--;
      }
      while (last < n - 1 && last - first < TONE_SLOTS - 1 && carrier(last + 1, n)) {
        last++;
      }
      double each = d.slotSeconds() * d.slowRateHz();
      int from = (int) Math.ceil(first * each);
      int to = (int) Math.min(d.slow.size(), (last + 1) * each);
      int at = Arrays.binarySearch(list, ToneSquelch.nearest(squelch.value()));
      return last - first + 1 >= FEWEST_SLOTS && isThere(d, from, to, list, at);
    }
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
