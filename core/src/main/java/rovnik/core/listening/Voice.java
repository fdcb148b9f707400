package rovnik.core.listening;

import rovnik.core.signal.SincSampler;
import rovnik.core.signal.Sound;

/**
 * A channel of samples that go on as it is heard: with silence where the squelch is closed, without
 * what stays the same, at a volume that follows the loudest of the last seconds, at the rate of
 * sound devices. What comes out does not depend on how the samples are cut into pieces, but for the
 * moment at which it comes.
 */
final class Voice {
  /** What stays the same is followed this slowly. */
  private static final double STEADY_HZ = 12;

  /** The loudest is forgotten by so much, in this time. */
  private static final double QUIETER_SECONDS = 3;

  /** The loudest is this share of full scale. */
  private static final float LOUD = 0.7f;

  /** Slots at the ends of a passage that are not heard. */
  private static final int EDGE = 2;

  private static final float SILENT = 1e-12f;

  private final Demodulator d;
  private final Gate.Opening opening;
  private final int ahead;
  private final double perSlot;
  private final int ramp;
  private final float forgets;

  /** Whether slots are open by themselves, of those that the next ones are joined from. */
  private final boolean[] open = new boolean[1 << 13];

  private int asked;
  private int next;
  private long begun;
  private boolean before;

  private double steady;
  private float loudest = SILENT;
  private float gain;
  private float[] sound = new float[0];

  /** What is heard, at its own rate, of which the places to read from are kept. */
  private final Growing heard = new Growing();

  private long given;
  private final Growing out = new Growing();

  /**
   * @param addDb level over dB of full scale
   */
  Voice(ListenSettings s, double rateHz, double nearHz, double addDb) {
    this.d = new Demodulator(s, rateHz, nearHz);
    double noise = s.mode() == Mode.FM ? d.bendOfNoise(s.bandHz()) : Double.NaN;
    this.opening = new Gate.Opening(d, s.squelch(), addDb, noise);
    boolean always = s.squelch().by() == Squelch.By.NONE;
    this.ahead = always ? 0 : opening.ahead() + Gate.HANGS + EDGE + 2;
    this.perSlot = d.slotSeconds() * d.soundRateHz();
    this.ramp = (int) Math.max(1, Heard.RAMP_SECONDS * d.soundRateHz());
    this.forgets = (float) Math.exp(-d.slotSeconds() / QUIETER_SECONDS);
    for (int i = 0; i < SincSampler.REACH; i++) {
      heard.add(0);
    }
  }

  /** Takes more samples, interleaved. */
  void take(float[] iq, int from, int samples) {
    d.take(iq, from, samples);
    float[] more = d.sound.taken();
    float[] all = java.util.Arrays.copyOf(sound, sound.length + more.length);
    System.arraycopy(more, 0, all, sound.length, more.length);
    int n = d.powers.size();
    while (asked < n - opening.ahead()) {
      open[asked % open.length] = opening.opens(asked, n);
      asked++;
    }
    int used = 0;
    while (next + ahead < asked && begins(next + 1) - begun <= all.length) {
      used = slot(all, used);
    }
    sound = java.util.Arrays.copyOfRange(all, used, all.length);
    begun += used;
    long old = next - 2L * Gate.TONE_SLOTS;
    d.powers.forget(old);
    d.bends.forget(old);
    d.slow.forget((long) (old * d.slotSeconds() * d.slowRateHz()));
    d.highs.taken();
    d.lows.taken();
    d.means.taken();
    d.turns.taken();
    resample();
  }

  private long begins(int slot) {
    return Math.round(slot * perSlot);
  }

  /**
   * True if a slot is heard: in a passage, and not at its ends, where the carrier comes or goes.
   */
  private boolean heard(int slot) {
    boolean inside = true;
    for (int k = Math.max(0, slot - EDGE); k <= slot + EDGE && inside; k++) {
      inside = passes(k);
    }
    return inside;
  }

  /** True if a slot is open by itself, or between two near ones that are. */
  private boolean passes(int slot) {
    int last = -1;
    for (int k = Math.max(0, slot - Gate.HANGS); k <= slot; k++) {
      last = open[k % open.length] ? k : last;
    }
    if (last == slot || last < 0) {
      return last == slot;
    }
    for (int k = slot + 1; k <= last + Gate.HANGS + 1; k++) {
      if (open[k % open.length]) {
        return true;
      }
    }
    return false;
  }

  /**
   * Hears the next slot.
   *
   * @return where the one after it begins
   */
  private int slot(float[] all, int from) {
    int to = (int) (begins(next + 1) - begun);
    boolean now = ahead == 0 || heard(next);
    boolean after = ahead == 0 || heard(next + 1);
    next++;
    if (!now) {
      for (int i = from; i < to; i++) {
        heard.add(0);
      }
      before = false;
      return to;
    }
    if (!before) {
      steady = mean(all, from, to);
    }
    float[] y = new float[to - from];
    double follows = 2 * Math.PI * STEADY_HZ / d.soundRateHz();
    float most = 0;
    for (int i = 0; i < y.length; i++) {
      double v = all[from + i] - steady;
      steady += follows * v;
      y[i] = (float) v;
      most = Math.max(most, Math.abs(y[i]));
    }
    // Where filters begin to ring tells nothing of how loud it is.
    if (ahead > 0 || next > EDGE) {
      loudest = Math.max(SILENT, Math.max(most, loudest * forgets));
    }
    float own = LOUD / Math.max(most, SILENT);
    float wanted = loudest > SILENT ? Math.min(LOUD / loudest, own) : own;
    float had = before ? gain : wanted;
    for (int i = 0; i < y.length; i++) {
      double edge = before ? 1 : Math.min(1, (i + 0.5) / ramp);
      edge = after ? edge : Math.min(edge, (y.length - i - 0.5) / ramp);
      double soft = (1 - Math.cos(Math.PI * Math.min(1, edge))) / 2;
      float g = Math.min(had + (wanted - had) * i / y.length, own);
      heard.add((float) (soft * g * y[i]));
    }
    gain = wanted;
    before = true;
    return to;
  }

  private static double mean(float[] x, int from, int to) {
    double sum = 0;
    for (int i = from; i < to; i++) {
      sum += x[i];
    }
    return sum / Math.max(1, to - from);
  }

  private void resample() {
    int reach = SincSampler.REACH;
    double step = d.soundRateHz() / Sound.USUAL_HZ;
    float[] wide = new float[2 * reach + 2];
    while (true) {
      double place = reach + given * step;
      long whole = (long) Math.floor(place);
      if (whole + reach + 1 >= heard.count()) {
        break;
      }
      for (int k = 0; k < wide.length; k++) {
        long at = whole - reach + k;
        wide[k] = at < 0 || at >= heard.count() ? 0 : heard.at(at);
      }
      out.add((float) SincSampler.at(wide, reach + place - whole));
      given++;
    }
    heard.forget((long) (given * step) - 2);
  }

  /** What is heard since this was asked last, at {@link Sound#USUAL_HZ}. */
  Sound taken() {
    return new Sound(out.taken(), Sound.USUAL_HZ);
  }
}
