package rovnik.standins.world;

/**
 * The crane remote and another hopper beside it, as an aerial on the quay has them: each goes to a
 * channel of its list at every step, in an order that does not repeat, and sends data there with
 * its frequency.
 */
final class CraneRemote {
  /** One bit moves the frequency to one side or the other for so long. */
  private static final double BIT_SECONDS = 1e-6;

  private static final double DEVIATION_HZ = 250e3;

  private final Clock clock;
  private final double error = 6.3e-6;

  CraneRemote(Clock clock) {
    this.clock = clock;
  }

  /** Adds what there is now; time does not pass. */
  void add(double[] iq, int samples, double centreHz, double rateHz) {
    double start = clock.seconds();
    hopper(
        iq,
        samples,
        centreHz,
        rateHz,
        start,
        Truth.CRANE_DBM,
        Truth.CRANE_HOP_SECONDS,
        Truth.CRANE_BLANK_SECONDS,
        0x51ed2701L,
        true);
    hopper(
        iq,
        samples,
        centreHz,
        rateHz,
        start,
        Truth.OTHER_HOPPER_DBM,
        Truth.OTHER_HOPPER_SECONDS,
        Truth.OTHER_HOPPER_BLANK_SECONDS,
        0x2545f491L,
        false);
  }

  /** A number that looks like chance and is the same whenever it is asked for. */
  private static long chance(long seed, long n) {
    long x = seed * 0x94d049bb133111ebL + n * 0x9e3779b97f4a7c15L;
    x = (x ^ x >>> 30) * 0xbf58476d1ce4e5b9L;
    x = (x ^ x >>> 27) * 0x94d049bb133111ebL;
    return (x ^ x >>> 31) & Long.MAX_VALUE;
  }

  private static int channel(long hop, long seed, boolean crane) {
    if (!crane) {
      return Truth.OTHER_HOPPER_FIRST + (int) (chance(seed, hop) % Truth.OTHER_HOPPER_CHANNELS);
    }
    int gone = Truth.CRANE_AVOIDS_TO - Truth.CRANE_AVOIDS_FROM + 1;
    int k = 1 + (int) (chance(seed, hop) % (Truth.CRANE_CHANNELS - gone));
    return k < Truth.CRANE_AVOIDS_FROM ? k : k + gone;
  }

  private void hopper(
      double[] iq,
      int samples,
      double centreHz,
      double rateHz,
      double start,
      double levelDbm,
      double every,
      double blank,
      long seed,
      boolean crane) {
    double amplitude = World.amplitude(levelDbm);
    int n = 0;
    while (n < samples) {
      double t = start + n / rateHz;
      long hop = (long) Math.floor(t / every);
      double ends = (hop + 1) * every - blank;
      int next = (int) Math.min(samples, Math.ceil(((hop + 1) * every - start) * rateHz));
      int last = (int) Math.min(samples, Math.ceil((ends - start) * rateHz));
      double hz =
          (Truth.CRANE_FIRST_HZ + (channel(hop, seed, crane) - 1) * Truth.CRANE_STEP_HZ)
                  * (1 + error)
              - centreHz;
      double a = amplitude * World.bandShape(hz, rateHz);
      if (a > 0) {
        send(iq, n, last, hz, a, rateHz, start, seed + hop);
      }
      n = Math.max(n + 1, next);
    }
  }

  /** Bits on a channel: the phase goes on from bit to bit. */
  private static void send(
      double[] iq,
      int from,
      int to,
      double hz,
      double amplitude,
      double rateHz,
      double start,
      long seed) {
    double phase = (chance(seed, 77) % 6283) / 1000.0;
    int n = from;
    while (n < to) {
      long bit = (long) Math.floor((start + n / rateHz) / BIT_SECONDS);
      int end = (int) Math.min(to, Math.ceil(((bit + 1) * BIT_SECONDS - start) * rateHz));
      end = Math.max(n + 1, end);
      double f = hz + ((chance(seed, bit) & 16) == 0 ? -DEVIATION_HZ : DEVIATION_HZ);
      double turn = 2 * Math.PI * f / rateHz;
      double re = amplitude * Math.cos(phase);
      double im = amplitude * Math.sin(phase);
      double c = Math.cos(turn);
      double s = Math.sin(turn);
      phase += turn * (end - n);
      for (; n < end; n++) {
        iq[2 * n] += re;
        iq[2 * n + 1] += im;
        double r = re * c - im * s;
        im = re * s + im * c;
        re = r;
      }
    }
  }
}
