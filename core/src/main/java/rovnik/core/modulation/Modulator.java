package rovnik.core.modulation;

import rovnik.core.Refusal;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.SincSampler;
import rovnik.core.signal.Transforms;
import rovnik.core.units.Frequency;

/**
 * Makes the waveform of a {@link SingleCarrier}: each sample is the sum of the shapes of the
 * symbols around it, in time, so that any ratio of sample rate to symbol rate will do. What repeats
 * is made on a ring: the first symbol follows the last.
 */
public final class Modulator {
  /** Longest waveform, samples. */
  public static final int LONGEST = 1 << 26;

  private static final int MOST_PHASES = 4096;

  /** Symbols of one block. */
  private static final int BLOCK = 8192;

  /** Symbols at each end of a block that its ring spoils, down to 90 dB. */
  private static final int GUARD = 512;

  /** Samples a symbol that a band-limited carrier may be read between. */
  private static final int FINER = 4;

  private static final int MOST_DIRECT = 16;

  private final SingleCarrier carrier;
  private final double samplesPerSymbol;
  private final Ratio ratio;

  /**
   * @param sampleRateHz at least the band that the carrier takes
   */
  public Modulator(SingleCarrier carrier, double sampleRateHz) {
    this.carrier = carrier;
    this.samplesPerSymbol = sampleRateHz / carrier.symbolRateHz();
    double half = carrier.halfBandHz() / carrier.symbolRateHz();
    double least = 2 * (Double.isInfinite(half) ? 1 : half);
    if (!(samplesPerSymbol >= least * (1 - 1e-9))) {
      throw new Refusal(
          "sampleRateHz",
          "This carrier needs a sample rate of "
              + Frequency.ofHertz(least * carrier.symbolRateHz())
              + " or more.");
    }
    this.ratio = Ratio.of(samplesPerSymbol, MOST_PHASES);
  }

  /**
   * Makes at least so many symbols; as many more as it takes to repeat without a seam, where that
   * is not too long.
   */
  public Waveform make(int leastSymbols) {
    if (leastSymbols < 1 || leastSymbols * samplesPerSymbol > LONGEST) {
      throw new Refusal(
          "symbols", "A waveform has 1 symbol or more and at most " + LONGEST + " samples.");
    }
    long unit = ratio == null ? -1 : seamlessSymbols();
    long wanted = unit < 0 ? -1 : (leastSymbols + unit - 1) / unit * unit;
    boolean seamless = unit > 0 && wanted * samplesPerSymbol <= LONGEST;
    int symbols = seamless ? (int) wanted : leastSymbols;
    int[] values = SymbolStream.values(carrier, symbols);
    int samples =
        seamless
            ? (int) Math.round(symbols * samplesPerSymbol)
            : (int) Math.floor(symbols * samplesPerSymbol);
    float[] iq =
        carrier.format().keyed()
            ? new FrequencyKeying(carrier, values).make(samples, samplesPerSymbol)
            : shape(SymbolStream.points(carrier, values), samples);
    normalise(iq);
    return new Waveform(
        iq, samplesPerSymbol * carrier.symbolRateHz(), seamless, seamless ? "" : seam());
  }

  /** Samples after which all of it begins again, -1 if there are none or too many. */
  public long seamlessSamples() {
    long unit = ratio == null ? -1 : seamlessSymbols();
    return unit < 0 || unit * samplesPerSymbol > LONGEST ? -1 : Math.round(unit * samplesPerSymbol);
  }

  private String seam() {
    return ratio == null
        ? "The sample rate is no simple multiple of the symbol rate: there is a seam where it repeats."
        : "Its data or its phase would take more than "
            + LONGEST
            + " samples to come round: there is a seam where it repeats.";
  }

  /** Symbols after which samples, data, frame and phase all begin again. */
  private long seamlessSymbols() {
    int bits = carrier.constellation().bitsPerSymbol();
    long frame = Math.max(1, carrier.framing().everySymbols());
    long inFrame = SymbolStream.payloadBits(carrier, frame);
    long period = carrier.payload().period();
    long unit = lcm(ratio.symbols(), frame * (period / gcd(period, inFrame)));
    if (carrier.format().differential() && unit * bits * samplesPerSymbol < LONGEST) {
      int turn = 0;
      for (int v : SymbolStream.values(carrier, (int) unit)) {
        turn += SymbolStream.turn(carrier.format(), v);
      }
      unit *= 8 / gcd(8, Math.floorMod(turn, 8) == 0 ? 8 : Math.floorMod(turn, 8));
    }
    if (carrier.format().keyed() && unit * samplesPerSymbol < LONGEST) {
      int times = FrequencyKeying.closes(carrier, SymbolStream.values(carrier, (int) unit));
      // One that never closes is longer than any waveform.
      unit = times > 0 ? unit * times : LONGEST + 1L;
    }
    return unit;
  }

  private static long gcd(long a, long b) {
    return b == 0 ? a : gcd(b, a % b);
  }

  private static long lcm(long a, long b) {
    return a / gcd(a, b) * b;
  }

  private float[] shape(float[] points, int samples) {
    int symbols = points.length / 2;
    // Q of an offset format comes half a symbol later.
    double late = carrier.format().offset() ? 0.5 : 0;
    float[][] out = {new float[samples], new float[samples]};
    if (carrier.filter().bandLimited()) {
      overFrequency(points, symbols, out, late);
    } else {
      inTime(points, 0, out[0], 0);
      inTime(points, 1, out[1], late);
    }
    return woven(out[0], out[1]);
  }

  /**
   * Blocks of symbols, each on a ring long enough that its ends do not matter: their spectrum
   * repeats, takes the shape's response, and comes back finer; between those samples it is read as
   * the sample rate asks.
   */
  private void overFrequency(float[] points, int symbols, float[][] out, double late) {
    PulseShape shape = carrier.filter();
    int guard = shape.parameter() < 0.1 ? 2 * GUARD : GUARD;
    int inner = BLOCK - 2 * guard;
    int finer = direct() ? (int) samplesPerSymbol : FINER;
    boolean direct = late == 0 && direct();
    float[] response = response(shape);
    ComplexFft ofSymbols = Transforms.ofLength(BLOCK);
    ComplexFft back = Transforms.ofLength(BLOCK * finer);
    float[] sRe = new float[BLOCK];
    float[] sIm = new float[BLOCK];
    float[] re = new float[BLOCK * finer];
    float[] im = new float[BLOCK * finer];
    for (int from = 0; from < symbols; from += inner) {
      for (int i = 0; i < BLOCK; i++) {
        int symbol = Math.floorMod(from - guard + i, symbols);
        sRe[i] = points[2 * symbol];
        sIm[i] = points[2 * symbol + 1];
      }
      ofSymbols.forward(sRe, sIm);
      java.util.Arrays.fill(re, 0);
      java.util.Arrays.fill(im, 0);
      // The inverse is a forward transform with the parts exchanged, before and after.
      for (int k = -BLOCK; k < BLOCK; k++) {
        float h = response[Math.abs(k)];
        if (h != 0) {
          int to = Math.floorMod(k, re.length);
          re[to] = h * sIm[Math.floorMod(k, BLOCK)];
          im[to] = h * sRe[Math.floorMod(k, BLOCK)];
        }
      }
      back.forward(re, im);
      int first = (int) Math.ceil(from * samplesPerSymbol - 1e-9);
      int end = (int) Math.ceil(Math.min(symbols, from + inner) * samplesPerSymbol - 1e-9);
      int last = Math.min(out[0].length, end);
      double base = (guard - from) * (double) finer;
      double step = finer / samplesPerSymbol;
      for (int m = first; m < last; m++) {
        if (direct) {
          int at = (int) base + m;
          out[0][m] = im[at];
          out[1][m] = re[at];
        } else {
          out[0][m] = (float) SincSampler.at(im, base + m * step);
          out[1][m] = (float) SincSampler.at(re, base + m * step - late * finer);
        }
      }
    }
  }

  /** Whether blocks come back with just the samples that are wanted. */
  private boolean direct() {
    return samplesPerSymbol == Math.rint(samplesPerSymbol)
        && samplesPerSymbol >= 2
        && samplesPerSymbol <= MOST_DIRECT
        && Integer.bitCount((int) samplesPerSymbol) == 1;
  }

  private static float[] response(PulseShape shape) {
    float[] h = new float[BLOCK + 1];
    for (int k = 0; k < h.length; k++) {
      h[k] = (float) shape.response((double) k / BLOCK);
    }
    return h;
  }

  /** The sum of the few shapes that reach a sample. */
  private void inTime(float[] points, int part, float[] out, double late) {
    int symbols = points.length / 2;
    int reach = (int) Math.ceil(carrier.filter().reach()) + 1;
    for (int m = 0; m < out.length; m++) {
      double t = m / samplesPerSymbol - late;
      int here = (int) Math.floor(t);
      double sum = 0;
      for (int k = here - reach; k <= here + reach; k++) {
        double h = carrier.filter().at(t - k);
        if (h != 0) {
          sum += h * points[2 * Math.floorMod(k, symbols) + part];
        }
      }
      out[m] = (float) sum;
    }
  }

  private static float[] woven(float[] re, float[] im) {
    float[] iq = new float[2 * re.length];
    for (int i = 0; i < re.length; i++) {
      iq[2 * i] = re[i];
      iq[2 * i + 1] = im[i];
    }
    return iq;
  }

  private static void normalise(float[] iq) {
    double sum = 0;
    for (float v : iq) {
      sum += (double) v * v;
    }
    float scale = (float) Math.sqrt(iq.length / 2 / Math.max(sum, 1e-300));
    for (int i = 0; i < iq.length; i++) {
      iq[i] *= scale;
    }
  }
}
