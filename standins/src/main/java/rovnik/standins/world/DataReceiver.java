package rovnik.standins.world;

/**
 * The buoy's receiver: 16-QAM, 250 ksym/s, in its test mode. It filters, finds timing, carrier and
 * level by itself, decides, and compares with the test sequence that it falls in step with.
 */
public final class DataReceiver {
  private static final int PER_SYMBOL = 5;
  private static final int BLOCK = 2048;
  private static final int SAMPLES = BLOCK * PER_SYMBOL;
  private static final int SPAN = 10;
  private static final int REACH = SPAN * PER_SYMBOL;
  private static final int STEPS = 64;
  private static final double RATE_HZ = PER_SYMBOL * Truth.BUOY_RECEIVER_SYMBOL_RATE_HZ;

  /** What its loops lose by themselves, found by counting errors against the closed form. */
  private static final double LOOPS_DB = 0.07;

  private static final int[] GRAY = {0, 1, 3, 2};
  private static final double FOURTH_MOMENT = 1.32;
  private static final double PHASE_GAIN = 0.012;
  private static final double FREQUENCY_GAIN = 4e-5;
  private static final double SLOWLY = 0.1;
  private static final double LEVEL_GAIN = 0.2;

  private final TestedInput input;
  private final TestSequence sequence = new TestSequence();
  private final float[] pulse = new float[(2 * REACH + 2) * STEPS + 1];
  private final double[] raw = new double[2 * (SAMPLES + 4 * REACH)];
  private final double[] fresh = new double[2 * SAMPLES];
  private final double[] symbols = new double[2 * (BLOCK + 2)];
  private final boolean[] bits = new boolean[4 * (BLOCK + 2)];
  private double due = PER_SYMBOL;
  private double phase;
  private double turn;
  private double power;
  private int quarter;

  public DataReceiver(World world, long seed) {
    input =
        new TestedInput(
            world,
            seed,
            Truth.BUOY_RECEIVER_HZ,
            Truth.BUOY_RECEIVER_REFERENCE_ERROR,
            RATE_HZ,
            Truth.BUOY_RECEIVER_NOISE_FIGURE_DB + Truth.BUOY_RECEIVER_IMPLEMENTATION_DB - LOOPS_DB,
            Truth.BUOY_RECEIVER_IIP3_DBM,
            Truth.BUOY_RECEIVER_LO_DBC_PER_HZ_AT_10_KHZ);
    double energy = 0;
    for (int i = 0; i < pulse.length; i++) {
      double t = (i - (REACH + 1.0) * STEPS) / STEPS / PER_SYMBOL;
      pulse[i] = (float) Symbols.rootRaisedCosine(t, Truth.BUOY_RECEIVER_ROLL_OFF);
      energy += pulse[i] * pulse[i] / STEPS;
    }
    for (int i = 0; i < pulse.length; i++) {
      pulse[i] /= (float) Math.sqrt(energy);
    }
  }

  public synchronized void choose(int stages) {
    sequence.choose(stages);
  }

  public synchronized int stages() {
    return sequence.stages();
  }

  public synchronized boolean inStep() {
    return sequence.inStep();
  }

  /** Highest level at its connector since the last time, dBm. */
  public synchronized double highestDbm() {
    double h = input.highestDbm();
    input.forgetHighest();
    return h;
  }

  /**
   * Listens until so many bits are counted, or a quarter more time than they take has passed.
   *
   * @return bits, errors, packets, wrong packets
   */
  public synchronized long[] count(long wanted) {
    sequence.take();
    long most = (wanted / (4L * BLOCK) + 2) * 5 / 4 + 2;
    for (long block = 0; block < most && sequence.bits() < wanted; block++) {
      block();
    }
    return sequence.take();
  }

  /** Seconds that so many bits last. */
  public static double seconds(long bits) {
    return bits / (4 * Truth.BUOY_RECEIVER_SYMBOL_RATE_HZ);
  }

  private void block() {
    int keep = 2 * 4 * REACH;
    System.arraycopy(raw, 2 * SAMPLES, raw, 0, keep);
    input.next(fresh, SAMPLES);
    System.arraycopy(fresh, 0, raw, keep, 2 * SAMPLES);
    boolean was = sequence.inStep();
    double away = timing(was ? SAMPLES / 4 : SAMPLES) - due;
    away -= PER_SYMBOL * Math.rint(away / PER_SYMBOL);
    due += was ? SLOWLY * away : away;
    int count = 0;
    double at = due;
    double m2 = 0;
    double m4 = 0;
    for (; at < SAMPLES && count < BLOCK + 2; at += PER_SYMBOL) {
      shaped(at, symbols, 2 * count);
      double p =
          symbols[2 * count] * symbols[2 * count] + symbols[2 * count + 1] * symbols[2 * count + 1];
      m2 += p;
      m4 += p * p;
      count++;
    }
    due = at - SAMPLES;
    m2 /= count;
    m4 /= count;
    double s = Math.sqrt(Math.max(1e-3 * m2 * m2, 2 * m2 * m2 - m4) / (2 - FOURTH_MOMENT));
    power = was && power > 0 ? power + LEVEL_GAIN * (s - power) : s;
    if (!was) {
      findCarrier();
    }
    track(count);
    if (was) {
      decide(count, quarter);
      sequence.count(bits, 4 * count);
      return;
    }
    for (int q = 0; q < 4 && !sequence.inStep(); q++) {
      decide(count, q);
      if (sequence.hunt(bits, 4 * count)) {
        quarter = q;
      }
    }
  }

  /** Filtered at a place of the block, in samples; what is before the block is in {@code raw}. */
  private void shaped(double at, double[] out, int to) {
    double place = at + 2 * REACH;
    int first = (int) Math.floor(place) - REACH;
    double x = (first - place + REACH + 1) * STEPS;
    int i = (int) x;
    float part = (float) (x - i);
    double re = 0;
    double im = 0;
    for (int k = 0; k <= 2 * REACH; k++, i += STEPS) {
      float g = pulse[i] + part * (pulse[i + 1] - pulse[i]);
      re += g * raw[2 * (first + k)];
      im += g * raw[2 * (first + k) + 1];
    }
    out[to] = re;
    out[to + 1] = im;
  }

  /** Where symbols are: the line that the squared envelope has at the symbol rate. */
  private double timing(int samples) {
    double re = 0;
    double im = 0;
    double[] y = new double[2];
    for (int n = 0; n < samples; n++) {
      shaped(n, y, 0);
      double p = y[0] * y[0] + y[1] * y[1];
      double angle = 2 * Math.PI * (n % PER_SYMBOL) / PER_SYMBOL;
      re += p * Math.cos(angle);
      im -= p * Math.sin(angle);
    }
    return -PER_SYMBOL / (2 * Math.PI) * Math.atan2(im, re);
  }

  /** Frequency and phase from the line that the fourth power has. */
  private void findCarrier() {
    double[] fourth = new double[2 * BLOCK];
    for (int k = 0; k < BLOCK; k++) {
      double re = symbols[2 * k];
      double im = symbols[2 * k + 1];
      double a = re * re - im * im;
      double b = 2 * re * im;
      fourth[2 * k] = a * a - b * b;
      fourth[2 * k + 1] = 2 * a * b;
    }
    Dft.forward(fourth, BLOCK);
    int best = 0;
    double most = 0;
    for (int k = -BLOCK / 16; k <= BLOCK / 16; k++) {
      int i = 2 * Math.floorMod(k, BLOCK);
      double p = fourth[i] * fourth[i] + fourth[i + 1] * fourth[i + 1];
      if (p > most) {
        most = p;
        best = k;
      }
    }
    double below = size(fourth, best - 1);
    double above = size(fourth, best + 1);
    double middle = size(fourth, best);
    double between = above > below ? above / (above + middle) : -below / (below + middle);
    int i = 2 * Math.floorMod(best, BLOCK);
    double angle = Math.atan2(fourth[i + 1], fourth[i]) - Math.PI * between * (BLOCK - 1.0) / BLOCK;
    turn = 2 * Math.PI * (best + between) / BLOCK / 4;
    phase = (angle - Math.PI) / 4;
  }

  private static double size(double[] x, int k) {
    int i = 2 * Math.floorMod(k, BLOCK);
    return Math.hypot(x[i], x[i + 1]);
  }

  /** Turns the symbols by a loop that follows its own decisions. */
  private void track(int count) {
    double scale = Math.sqrt(10 / power);
    for (int k = 0; k < count; k++) {
      double c = Math.cos(phase) * scale;
      double s = Math.sin(phase) * scale;
      double re = symbols[2 * k] * c + symbols[2 * k + 1] * s;
      double im = symbols[2 * k + 1] * c - symbols[2 * k] * s;
      symbols[2 * k] = re;
      symbols[2 * k + 1] = im;
      double x = 2 * place(re) - 3;
      double y = 2 * place(im) - 3;
      double error = (im * x - re * y) / 10;
      turn += FREQUENCY_GAIN * error;
      phase += turn + PHASE_GAIN * error;
    }
    phase %= 2 * Math.PI;
  }

  private static int place(double v) {
    return (int) Math.max(0, Math.min(3, Math.rint((v + 3) / 2)));
  }

  private void decide(int count, int quarters) {
    for (int k = 0; k < count; k++) {
      double re = symbols[2 * k];
      double im = symbols[2 * k + 1];
      for (int q = 0; q < quarters; q++) {
        double t = re;
        re = -im;
        im = t;
      }
      int i = GRAY[place(re)];
      int j = GRAY[place(im)];
      bits[4 * k] = i >> 1 == 1;
      bits[4 * k + 1] = (i & 1) == 1;
      bits[4 * k + 2] = j >> 1 == 1;
      bits[4 * k + 3] = (j & 1) == 1;
    }
  }
}
