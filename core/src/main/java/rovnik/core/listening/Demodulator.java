package rovnik.core.listening;

import rovnik.core.signal.BandStream;

/**
 * One channel of samples that go on, demodulated without gaps: its sound, and how strong, how quiet
 * and how far modulated it is from slot to slot.
 */
final class Demodulator {
  private static final double SLOT_SECONDS = 0.01;

  /** Tones of squelches lie below; what is slow is taken up to here and falls until there. */
  private static final double SLOW_HZ = 262;

  private static final double SLOW_ENDS_HZ = 310;

  /** The channel's filter falls over this share of it, at each side. */
  private static final double FALLS = 0.1;

  /** Samples of the channel, over its width: what follows the carrier is wider than it. */
  private static final double CHANNEL_RATE = 2.4;

  private static final double SOUND_RATE = 2.6;

  /** The sound ends softly over this share of its highest frequency. */
  private static final double SOFT = 0.05;

  private static final int AT_ONCE = 1 << 14;

  private final Mode mode;
  private final BandStream channel;
  private final BandStream audio;
  private final BandStream below;
  private final double turn;
  private final double offHz;
  private final double rateHz;
  private final int perSlot;
  private final float[] waiting = new float[2 * AT_ONCE];

  private double phase;
  private double lastRe;
  private double lastIm;
  private double before;
  private double beforeThat;
  private long count;
  private double sum;
  private double power;
  private double bend;
  private double re;
  private double im;
  private double highest = Double.NEGATIVE_INFINITY;
  private double lowest = Double.POSITIVE_INFINITY;

  /** Of the sound, at its own rate. */
  final Growing sound = new Growing();

  /** Of each slot: mean power of the channel, of full scale. */
  final Growing powers = new Growing();

  /** Of each slot: highest, lowest and mean of what follows the message. */
  final Growing highs = new Growing();

  final Growing lows = new Growing();
  final Growing means = new Growing();

  /** Of each slot: mean square of how that bends from sample to sample, which noise does most. */
  final Growing bends = new Growing();

  /** Of each slot: frequency of the carrier by how it turns on the whole, from where expected. */
  final Growing turns = new Growing();

  /** What of the message is slower than a voice, of FM. */
  final Growing slow = new Growing();

  /**
   * @param rateHz samples a second that come
   * @param nearHz where the carrier is, from the centre
   */
  Demodulator(ListenSettings s, double rateHz, double nearHz) {
    this.mode = s.mode();
    double side =
        switch (mode) {
          case USB -> s.bandHz() / 2;
          case LSB -> -s.bandHz() / 2;
          default -> 0;
        };
    this.channel = channel(rateHz, nearHz + side, s.bandHz());
    this.rateHz = channel.outRateHz();
    this.offHz = channel.offsetHz() - nearHz;
    this.turn = 2 * Math.PI * offHz / this.rateHz;
    double top = s.highestHz();
    double fs = this.rateHz;
    boolean follows = mode == Mode.FM;
    this.audio =
        new BandStream(
            fs,
            0,
            top,
            Math.min(fs, SOUND_RATE * top),
            Math.max(s.audio().settlesSeconds(), 2 / (SOFT * top)),
            hz -> {
              double over = Math.max(0, hz / top - 1 + SOFT) / SOFT;
              double x = Math.PI * hz / fs;
              // A difference from sample to sample is low for fast messages.
              double droop = follows && x > 0 ? x / Math.sin(x) : 1;
              return droop * s.audio().response(hz) * (1 + Math.cos(Math.PI * over)) / 2;
            });
    this.below =
        new BandStream(
            fs,
            0,
            SLOW_ENDS_HZ,
            Math.min(fs, SOUND_RATE * SLOW_ENDS_HZ),
            2 / (SLOW_ENDS_HZ - SLOW_HZ),
            hz -> {
              double over = Math.max(0, (hz - SLOW_HZ) / (SLOW_ENDS_HZ - SLOW_HZ));
              return (1 + Math.cos(Math.PI * over)) / 2;
            });
    this.perSlot = (int) Math.max(1, Math.round(SLOT_SECONDS * fs));
  }

  private static BandStream channel(double rateHz, double offsetHz, double bandHz) {
    return new BandStream(
        rateHz,
        offsetHz,
        bandHz * (0.5 + FALLS),
        Math.min(rateHz, CHANNEL_RATE * bandHz),
        1 / (FALLS * bandHz),
        hz -> passes(hz, bandHz));
  }

  /** Amplitude that passes the filter of a channel, so far from its middle. */
  static double passes(double hz, double bandHz) {
    double share = (Math.abs(hz) / bandHz - 0.5 + FALLS) / (2 * FALLS);
    return (1 + Math.cos(Math.PI * Math.max(0, Math.min(1, share)))) / 2;
  }

  double slotSeconds() {
    return perSlot / rateHz;
  }

  double slowRateHz() {
    return below.outRateHz();
  }

  double soundRateHz() {
    return audio.outRateHz();
  }

  /** Samples a second of the channel. */
  double channelRateHz() {
    return rateHz;
  }

  /** Takes more samples, interleaved. */
  void take(float[] iq, int from, int samples) {
    channel.take(iq, from, samples, this::demodulate);
  }

  /** Gives what the filters still hold. */
  void end() {
    channel.end(this::demodulate);
    audio.end(this::hear);
    below.end(this::slowly);
  }

  private void hear(float[] x, float[] y, int from, int samples) {
    for (int i = from; i < from + samples; i++) {
      sound.add(x[i]);
    }
  }

  private void slowly(float[] x, float[] y, int from, int samples) {
    for (int i = from; i < from + samples; i++) {
      slow.add(x[i]);
    }
  }

  private void demodulate(float[] x, float[] y, int from, int samples) {
    for (int at = from; at < from + samples; at += AT_ONCE) {
      int now = Math.min(AT_ONCE, from + samples - at);
      for (int i = 0; i < now; i++) {
        waiting[2 * i] = (float) one(x[at + i], y[at + i]);
      }
      audio.take(waiting, 0, now, this::hear);
      if (mode == Mode.FM) {
        below.take(waiting, 0, now, this::slowly);
      }
    }
  }

  private double one(double a, double b) {
    double p = a * a + b * b;
    double c = a * lastRe + b * lastIm;
    double s = b * lastRe - a * lastIm;
    lastRe = a;
    lastIm = b;
    double v =
        switch (mode) {
          case AM -> Math.sqrt(p);
          case FM -> Math.atan2(s, c) * rateHz / (2 * Math.PI) + offHz;
          case USB, LSB -> {
            phase = (phase + turn) % (2 * Math.PI);
            yield a * Math.cos(phase) - b * Math.sin(phase);
          }
        };
    if (count == 0 && mode == Mode.FM) {
      v = offHz; // there is nothing before the first that it could have turned from
    }
    double bent = count < 3 ? 0 : v - 2 * before + beforeThat;
    beforeThat = before;
    before = v;
    count++;
    power += p;
    re += c;
    im += s;
    bend += bent * bent;
    sum += v;
    highest = Math.max(highest, v);
    lowest = Math.min(lowest, v);
    if (count % perSlot == 0) {
      slot();
    }
    return v;
  }

  private void slot() {
    double n = perSlot;
    powers.add((float) (power / n));
    highs.add((float) highest);
    lows.add((float) lowest);
    means.add((float) (sum / n));
    bends.add((float) (bend / n));
    turns.add((float) (Math.atan2(im, re) * rateHz / (2 * Math.PI) + offHz));
    power = 0;
    bend = 0;
    sum = 0;
    re = 0;
    im = 0;
    highest = Double.NEGATIVE_INFINITY;
    lowest = Double.POSITIVE_INFINITY;
  }

  /** How FM without a carrier bends: that of seeded noise through the same filter. */
  double bendOfNoise(double bandHz) {
    BandStream noise = channel(rateHz, 0, bandHz);
    java.util.Random random = new java.util.Random(1);
    float[] iq = new float[2 * AT_ONCE];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) random.nextGaussian();
    }
    double[] of = new double[5]; // last re and im, the two values before, sum
    long[] n = new long[1];
    BandStream.Sink sink =
        (x, y, from, samples) -> {
          for (int i = from; i < from + samples; i++) {
            double v =
                Math.atan2(y[i] * of[0] - x[i] * of[1], x[i] * of[0] + y[i] * of[1])
                    * rateHz
                    / (2 * Math.PI);
            double bent = n[0] < 3 ? 0 : v - 2 * of[2] + of[3];
            of[0] = x[i];
            of[1] = y[i];
            of[3] = of[2];
            of[2] = v;
            of[4] += bent * bent;
            n[0]++;
          }
        };
    noise.take(iq, 0, AT_ONCE, sink);
    noise.end(sink);
    return of[4] / n[0];
  }
}
