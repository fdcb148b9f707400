package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import rovnik.core.modulation.Constellation;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/**
 * Reads one packet: carrier, clock and channel are found by its training and its pilots, then from
 * all that was decided, until nothing is left to be turned.
 */
final class PacketReader {
  private static final int TIMES = ChannelSamples.TIMES;
  private static final int TRANSFORM = LegacyTones.TRANSFORM * TIMES;
  private static final int GUARD = LegacyTones.GUARD * TIMES;
  private static final int SYMBOL = TRANSFORM + GUARD;
  private static final int TRAINING = LegacyPacket.TRAINING * TIMES;

  /** Windows begin in the middle of the guard. */
  private static final int EARLY = GUARD / 2;

  private static final int ROUNDS = 4;

  /** After so many samples the turn is worked out anew. */
  private static final int EXACT = 256;

  /** How quickly the timing of the first round follows. */
  private static final double FOLLOW = 0.3;

  private static final int[] TONES = OfdmPacket.TONES;

  private final ChannelSamples samples;
  private final OfdmSettings settings;
  private final double rateHz;
  private final ComplexFft fft = Transforms.ofLength(TRANSFORM);
  private final float[] fftRe = new float[TRANSFORM];
  private final float[] fftIm = new float[TRANSFORM];

  // Of the packet that is read
  private double first;
  private double offset;
  private double clock;
  private double[] re;
  private double[] im;
  private final double[] channelRe = new double[TONES.length];
  private final double[] channelIm = new double[TONES.length];
  private double midRe;
  private double midIm;

  PacketReader(ChannelSamples samples, OfdmSettings settings) {
    this.samples = samples;
    this.settings = settings;
    this.rateHz = samples.rateHz();
  }

  /** One round over all symbols. */
  private static final class Round {
    final OfdmPacket.Grid values;
    final OfdmPacket.Grid ideal;
    final double[] phase;
    final double[] slope;
    final double[] midRe;
    final double[] midIm;

    Round(int symbols) {
      values = OfdmPacket.Grid.of(symbols);
      ideal = OfdmPacket.Grid.of(symbols);
      phase = new double[symbols];
      slope = new double[symbols];
      midRe = new double[symbols];
      midIm = new double[symbols];
    }
  }

  /** Reads a packet; what there is of it if it cannot be decoded. */
  OfdmPacket read(PacketFinder.Found found) {
    first = found.longTraining();
    offset = found.offset();
    clock = 0;
    int head = TRAINING + GUARD * 2; // before the first symbol of the long training
    int toSignal = head + 2 * TRANSFORM + SYMBOL;
    take(head, toSignal);
    train(head);
    SignalField field = LegacyBits.signal(signal(head));
    int there = (int) Math.floor((samples.count() - first - 2.0 * TRANSFORM - SYMBOL) / SYMBOL);
    String check = there < 0 ? "cut off before SIGNAL ends" : field.wrong();
    LegacyRate rate = check.isEmpty() ? field.rate().orElse(null) : null;
    int bytes = field.bytes();
    int symbols = rate == null ? 0 : rate.symbolsOf(bytes);
    if (rate != null && symbols > there) {
      check = "cut off: " + there + " of " + symbols + " symbols are there";
      symbols = there;
    }
    Round round = new Round(0);
    if (symbols > 0) {
      int all = toSignal + symbols * SYMBOL;
      for (int r = 0; r < ROUNDS; r++) {
        take(head, all);
        train(head);
        round = round(head, rate, symbols, r == 0);
        if (r < ROUNDS - 1) {
          correct(round);
        }
      }
      if (settings.estimate() == OfdmSettings.Estimate.TRAINING_AND_DATA) {
        trainByData(head, round);
        round = round(head, rate, symbols, false);
      }
    }
    double[] mid = middle(round);
    LegacyBits.Payload payload =
        rate == null || !check.isEmpty() ? null : decoded(rate, round, bytes);
    if (payload != null && check.isEmpty()) {
      check = payload.wrong();
    }
    return new OfdmPacket(
        samples.seconds(first - head),
        field,
        rate,
        check,
        samples.offsetHz() + offset * rateHz / (2 * Math.PI),
        clock,
        channelRe.clone(),
        channelIm.clone(),
        round.values,
        round.ideal,
        round.phase,
        mid[0],
        mid[1],
        mid[2],
        fieldPower(head, symbols),
        payload);
  }

  /** Takes the samples of the packet anew, at its clock and without its offset. */
  private void take(int head, int count) {
    re = new double[count + GUARD];
    im = new double[count + GUARD];
    double step = 1 + clock;
    samples.read(first - head * step, clock, re, im);
    double turnRe = Math.cos(offset * step);
    double turnIm = Math.sin(offset * step);
    for (int from = 0; from < re.length; from += EXACT) {
      double angle = offset * (from - head) * step;
      double c = Math.cos(angle);
      double s = Math.sin(angle);
      for (int n = from; n < Math.min(re.length, from + EXACT); n++) {
        double x = re[n] * c + im[n] * s;
        im[n] = im[n] * c - re[n] * s;
        re[n] = x;
        double next = c * turnRe - s * turnIm;
        s = c * turnIm + s * turnRe;
        c = next;
      }
    }
  }

  private void transform(int from) {
    for (int n = 0; n < TRANSFORM; n++) {
      fftRe[n] = (float) re[from + n];
      fftIm[n] = (float) im[from + n];
    }
    fft.forward(fftRe, fftIm);
  }

  private static int bin(int tone) {
    return tone & TRANSFORM - 1;
  }

  /** The channel from both symbols of the long training. */
  private void train(int head) {
    Arrays.fill(channelRe, 0);
    Arrays.fill(channelIm, 0);
    midRe = 0;
    midIm = 0;
    for (int t = 0; t < 2; t++) {
      transform(head + t * TRANSFORM - EARLY);
      for (int k = 0; k < TONES.length; k++) {
        double sign = 0.5 * LegacyTones.longTraining(TONES[k]);
        channelRe[k] += sign * fftRe[bin(TONES[k])];
        channelIm[k] += sign * fftIm[bin(TONES[k])];
      }
      midRe += 0.5 * fftRe[0];
      midIm += 0.5 * fftIm[0];
    }
  }

  /** And from all that was decided besides. */
  private void trainByData(int head, Round round) {
    double[] x = new double[TONES.length];
    double[] y = new double[TONES.length];
    double[] weight = new double[TONES.length];
    for (int k = 0; k < TONES.length; k++) {
      x[k] = 2 * channelRe[k];
      y[k] = 2 * channelIm[k];
      weight[k] = 2;
    }
    for (int s = 0; s < round.phase.length; s++) {
      transform(dataAt(head, s));
      double c = Math.cos(round.phase[s]);
      double d = Math.sin(round.phase[s]);
      for (int k = 0; k < TONES.length; k++) {
        double p = round.ideal.re()[s][k];
        double q = round.ideal.im()[s][k];
        double vRe = fftRe[bin(TONES[k])] * c + fftIm[bin(TONES[k])] * d;
        double vIm = fftIm[bin(TONES[k])] * c - fftRe[bin(TONES[k])] * d;
        x[k] += vRe * p + vIm * q;
        y[k] += vIm * p - vRe * q;
        weight[k] += p * p + q * q;
      }
    }
    for (int k = 0; k < TONES.length; k++) {
      channelRe[k] = x[k] / weight[k];
      channelIm[k] = y[k] / weight[k];
    }
  }

  private static int dataAt(int head, int symbol) {
    return head + 2 * TRANSFORM + (1 + symbol) * SYMBOL + GUARD - EARLY;
  }

  /** How sure each bit of SIGNAL is. */
  private float[] signal(int head) {
    transform(head + 2 * TRANSFORM + GUARD - EARLY);
    double x = 0;
    double y = 0;
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      int k = indexOf(LegacyTones.PILOTS[p]);
      int sign = LegacyTones.pilot(p, 0);
      x += sign * (fftRe[bin(TONES[k])] * channelRe[k] + fftIm[bin(TONES[k])] * channelIm[k]);
      y += sign * (fftIm[bin(TONES[k])] * channelRe[k] - fftRe[bin(TONES[k])] * channelIm[k]);
    }
    double length = Math.max(1e-300, Math.hypot(x, y)) * meanPower();
    float[] sure = new float[LegacyTones.DATA];
    int[] data = LegacyTones.data();
    for (int i = 0; i < data.length; i++) {
      int k = indexOf(data[i]);
      double p = fftRe[bin(data[i])] * channelRe[k] + fftIm[bin(data[i])] * channelIm[k];
      double q = fftIm[bin(data[i])] * channelRe[k] - fftRe[bin(data[i])] * channelIm[k];
      sure[i] = (float) ((p * x + q * y) / length);
    }
    return sure;
  }

  /** Of what the channel lets through: how sure a bit is must not depend on the level. */
  private double meanPower() {
    double sum = 0;
    for (int k = 0; k < TONES.length; k++) {
      sum += channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k];
    }
    return Math.max(1e-300, sum / TONES.length);
  }

  private static int indexOf(int tone) {
    return tone < 0 ? tone + LegacyTones.LAST : tone + LegacyTones.LAST - 1;
  }

  private Round round(int head, LegacyRate rate, int symbols, boolean following) {
    Round out = new Round(symbols);
    Constellation points = rate.constellation();
    double slope = 0;
    double[] x = new double[TONES.length];
    double[] y = new double[TONES.length];
    for (int s = 0; s < symbols; s++) {
      transform(dataAt(head, s));
      out.midRe[s] = fftRe[0];
      out.midIm[s] = fftIm[0];
      for (int k = 0; k < TONES.length; k++) {
        double h = channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k];
        double a = fftRe[bin(TONES[k])];
        double b = fftIm[bin(TONES[k])];
        double p = (a * channelRe[k] + b * channelIm[k]) / h;
        double q = (b * channelRe[k] - a * channelIm[k]) / h;
        x[k] = p;
        y[k] = q;
      }
      turnBySlope(x, y, slope);
      double common = byPilots(x, y, s + 1);
      double tracked = following || settings.trackPhase() ? common : 0;
      turn(x, y, -tracked);
      double gain = settings.trackLevel() ? levelOfPilots(x, y, s + 1) : 1;
      double[] outRe = out.values.re()[s];
      double[] outIm = out.values.im()[s];
      double[] idealRe = out.ideal.re()[s];
      double[] idealIm = out.ideal.im()[s];
      for (int k = 0; k < TONES.length; k++) {
        outRe[k] = x[k] / gain;
        outIm[k] = y[k] / gain;
      }
      decide(points, outRe, outIm, idealRe, idealIm, s + 1);
      double[] left = left(outRe, outIm, idealRe, idealIm);
      out.slope[s] = slope + left[1];
      midTurn(out, s, common);
      out.phase[s] = common;
      slope += following ? FOLLOW * left[1] : 0;
    }
    return out;
  }

  private static void turnBySlope(double[] x, double[] y, double slope) {
    for (int k = 0; k < x.length && slope != 0; k++) {
      double c = Math.cos(slope * TONES[k]);
      double s = Math.sin(slope * TONES[k]);
      double p = x[k] * c + y[k] * s;
      y[k] = y[k] * c - x[k] * s;
      x[k] = p;
    }
  }

  private static void midTurn(Round out, int s, double angle) {
    double c = Math.cos(angle);
    double d = Math.sin(angle);
    double x = out.midRe[s] * c + out.midIm[s] * d;
    out.midIm[s] = out.midIm[s] * c - out.midRe[s] * d;
    out.midRe[s] = x;
  }

  private static void turn(double[] x, double[] y, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    for (int k = 0; k < x.length; k++) {
      double p = x[k] * c - y[k] * s;
      y[k] = x[k] * s + y[k] * c;
      x[k] = p;
    }
  }

  /** Each pilot counts as the channel lets it through. */
  private double byPilots(double[] x, double[] y, int symbol) {
    double sumRe = 0;
    double sumIm = 0;
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      int k = indexOf(LegacyTones.PILOTS[p]);
      double weight =
          LegacyTones.pilot(p, symbol)
              * (channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k]);
      sumRe += weight * x[k];
      sumIm += weight * y[k];
    }
    return Math.atan2(sumIm, sumRe);
  }

  private double levelOfPilots(double[] x, double[] y, int symbol) {
    double sum = 0;
    double all = 0;
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      int k = indexOf(LegacyTones.PILOTS[p]);
      double weight = channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k];
      sum += weight * LegacyTones.pilot(p, symbol) * x[k];
      all += weight;
    }
    return Math.max(1e-3, sum / all);
  }

  private static void decide(
      Constellation points, double[] x, double[] y, double[] re, double[] im, int symbol) {
    int pilot = 0;
    for (int k = 0; k < TONES.length; k++) {
      if (LegacyTones.isPilot(TONES[k])) {
        re[k] = LegacyTones.pilot(pilot++, symbol);
        im[k] = 0;
      } else {
        int value = points.decide(x[k], y[k]);
        re[k] = points.re(value);
        im[k] = points.im(value);
      }
    }
  }

  /** What is left of the common phase, and of the phase that grows with the tone. */
  private double[] left(double[] x, double[] y, double[] re, double[] im) {
    double weights = 0;
    double squares = 0;
    double sum = 0;
    double moment = 0;
    for (int k = 0; k < TONES.length; k++) {
      double h = channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k];
      double cross = h * (y[k] * re[k] - x[k] * im[k]);
      double weight = h * (re[k] * re[k] + im[k] * im[k]);
      weights += weight;
      squares += weight * TONES[k] * TONES[k];
      sum += cross;
      moment += cross * TONES[k];
    }
    return new double[] {sum / weights, moment / squares};
  }

  /** What still turns from symbol to symbol is taken into offset and clock. */
  private void correct(Round round) {
    int n = round.phase.length;
    // The training has neither phase nor slope, two symbols of it; its middle is so far before.
    double[] time = new double[n + 1];
    double[] phase = new double[n + 1];
    double[] slope = new double[n + 1];
    time[0] = TRANSFORM - EARLY;
    double before = 0;
    for (int s = 0; s < n; s++) {
      time[s + 1] = dataAt(0, s) + TRANSFORM / 2.0;
      phase[s + 1] =
          round.phase[s] + 2 * Math.PI * Math.rint((before - round.phase[s]) / 2 / Math.PI);
      before = phase[s + 1];
      slope[s + 1] = round.slope[s];
    }
    offset += rise(time, phase) / (1 + clock);
    // A slope of 2 pi / N is a sample.
    clock -= rise(time, slope) * TRANSFORM / (2 * Math.PI);
  }

  /** Steepness of a straight line, the first point of double weight. */
  private static double rise(double[] t, double[] y) {
    double weights = 1;
    double meanT = t[0];
    double meanY = y[0];
    for (int i = 0; i < t.length; i++) {
      weights++;
      meanT += t[i];
      meanY += y[i];
    }
    meanT /= weights;
    meanY /= weights;
    double cross = (t[0] - meanT) * (y[0] - meanY);
    double square = (t[0] - meanT) * (t[0] - meanT);
    for (int i = 0; i < t.length; i++) {
      cross += (t[i] - meanT) * (y[i] - meanY);
      square += (t[i] - meanT) * (t[i] - meanT);
    }
    return cross / square;
  }

  /** Mean of the tone in the middle over the root of the others' power, and its scatter. */
  private double[] middle(Round round) {
    double power = 0;
    for (int k = 0; k < TONES.length; k++) {
      power += channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k];
    }
    int n = round.midRe.length;
    double root = Math.sqrt(Math.max(1e-300, power));
    double x = 2 * midRe;
    double y = 2 * midIm;
    for (int s = 0; s < n; s++) {
      x += round.midRe[s];
      y += round.midIm[s];
    }
    x /= n + 2;
    y /= n + 2;
    double rest = 0;
    for (int s = 0; s < n; s++) {
      rest += square(round.midRe[s] - x) + square(round.midIm[s] - y);
    }
    // Of Student's distribution with twice n - 1 degrees of freedom.
    double scatter = n < 3 ? Double.NaN : Math.sqrt(rest / 2 / (n - 2) / (n + 2)) / root;
    return new double[] {x / root, y / root, scatter};
  }

  private static double square(double x) {
    return x * x;
  }

  private LegacyBits.Payload decoded(LegacyRate rate, Round round, int bytes) {
    int each = rate.bitsPerTone();
    float[] sure = new float[round.phase.length * rate.codedBits()];
    Constellation points = rate.constellation();
    double mean = meanPower();
    for (int s = 0; s < round.phase.length; s++) {
      int at = s * rate.codedBits();
      for (int tone : LegacyTones.data()) {
        int k = indexOf(tone);
        double h = channelRe[k] * channelRe[k] + channelIm[k] * channelIm[k];
        sure(
            points, round.values.re()[s][k], round.values.im()[s][k], (float) (h / mean), sure, at);
        at += each;
      }
    }
    return LegacyBits.payload(rate, sure, bytes);
  }

  /**
   * How much nearer the nearest point with a one is than that with a zero, for each bit. The first
   * half of the bits is I, the other Q.
   */
  private static void sure(
      Constellation points, double x, double y, float weight, float[] out, int at) {
    int bits = points.bitsPerSymbol();
    int ofQ = bits / 2;
    int ofI = bits - ofQ;
    for (int b = 0; b < bits; b++) {
      boolean i = b < ofI;
      int shift = bits - 1 - b;
      double zero = Double.POSITIVE_INFINITY;
      double one = Double.POSITIVE_INFINITY;
      for (int level = 0; level < 1 << (i ? ofI : ofQ); level++) {
        int value = i ? level << ofQ : level;
        double d = square(i ? x - points.re(value) : y - points.im(value));
        if ((value >> shift & 1) == 1) {
          one = Math.min(one, d);
        } else {
          zero = Math.min(zero, d);
        }
      }
      out[at + b] = (float) (weight * (zero - one));
    }
  }

  private double[] fieldPower(int head, int symbols) {
    int data = head + 2 * TRANSFORM + SYMBOL;
    return new double[] {
      power(0, TRAINING),
      power(TRAINING, 2 * TRAINING),
      power(2 * TRAINING, data),
      symbols == 0 ? Double.NaN : power(data, data + symbols * SYMBOL)
    };
  }

  private double power(int from, int to) {
    double sum = 0;
    for (int n = from; n < to; n++) {
      sum += re[n] * re[n] + im[n] * im[n];
    }
    return sum / (to - from);
  }
}
