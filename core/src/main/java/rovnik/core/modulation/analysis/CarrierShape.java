package rovnik.core.modulation.analysis;

import java.util.Arrays;
import rovnik.core.Refusal;
import rovnik.core.modulation.PulseShape;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.signal.IqRecord;

/**
 * Where the strongest carrier of a record is, how wide, and the rate of its symbols.
 *
 * @param offsetHz of its middle, from the centre of the record
 * @param symbolRateHz from the line that its envelope's square has there (Oerder and Meyr 1988)
 * @param rollOff of a root-raised cosine with such a spectrum
 * @param symbols that the record holds
 * @param startHz where the spectrum begins, from the centre of the record
 * @param db the spectrum, share of the power in each cell
 */
record CarrierShape(
    double offsetHz,
    double symbolRateHz,
    double symbolRateUncertaintyHz,
    double rollOff,
    double symbols,
    double startHz,
    double stepHz,
    double[] db) {
  private static final int CELLS = 1024;

  /** Cells to each side that are averaged where carriers are looked for. */
  private static final int SMOOTH = 3;

  private static final int MOST_SAMPLES = 1 << 17;

  /** A carrier stands so far above the floor, as powers; edges are looked for down to there. */
  private static final double STANDS = 3;

  /** And its edges are at most so far below its middle. */
  private static final double DOWN = 0.02;

  /** The line of the envelope stands so far above the median around it; noise does not. */
  private static final double LINE = 40;

  private static final double SHARP = 6;

  /**
   * Where something is, and how wide.
   *
   * @param samples of the record that were looked at
   * @param low first cell of it
   * @param high last one
   * @param raw powers of all cells
   */
  record Place(
      double offsetHz,
      double widthHz,
      int samples,
      double cellHz,
      double[] db,
      double[] raw,
      int low,
      int high) {
    double startHz() {
      return -cellHz * CELLS / 2 + cellHz / 2;
    }
  }

  static CarrierShape of(IqRecord record, Place at) {
    double fs = record.sampleRateHz();
    double[] rate = rate(record.iq(), at.samples(), fs, at.offsetHz(), at.widthHz());
    double rollOff =
        rollOff(at.raw(), at.low(), at.high(), at.cellHz(), at.offsetHz(), rate[0], fs);
    return new CarrierShape(
        at.offsetHz(),
        rate[0],
        rate[1],
        rollOff,
        at.samples() / fs * rate[0],
        at.startHz(),
        at.cellHz(),
        at.db());
  }

  /** What was looked at, for the screen. */
  static Series spectrum(double firstHz, double stepHz, double[] db) {
    return Series.curve(
            "spectrum",
            "Spectrum of the record",
            Axis.even(Axis.FREQUENCY, "Hz", firstHz, stepHz, db.length),
            db,
            "dB")
        .of("Share of power");
  }

  /** The strongest of what stands out. */
  static Place place(IqRecord record, double nearHz, double bandHz) {
    double fs = record.sampleRateHz();
    int samples = Math.min(record.sampleCount(), MOST_SAMPLES);
    if (samples < 512) {
      throw new Refusal("symbols", "The record is too short to tell; take 512 samples or more.");
    }
    BandTaker taker = new BandTaker(record.iq(), 0, samples, fs);
    double[] db = taker.spectrumDb(CELLS);
    double cell = fs / CELLS;
    double[] raw = Arrays.stream(db).map(v -> Math.pow(10, v / 10)).toArray();
    double[] p = smoothed(raw);
    int first = place(nearHz - (bandHz > 0 ? bandHz / 2 : fs), cell);
    int last = place(nearHz + (bandHz > 0 ? bandHz / 2 : fs), cell);
    double[] sorted = Arrays.copyOfRange(p, first, last + 1);
    Arrays.sort(sorted);
    double floor = sorted[sorted.length / 10];
    int top = first;
    for (int i = first; i <= last; i++) {
      top = p[i] > p[top] ? i : top;
    }
    if (!(p[top] > STANDS * floor)) {
      throw new Refusal(
          "signal",
          "Nothing stands out of the noise here. Check the frequency and the level, or look at more"
              + " band.");
    }
    double edge = Math.max(STANDS * floor, DOWN * p[top]);
    int low = top;
    while (low > first && p[low - 1] > edge) {
      low--;
    }
    int high = top;
    while (high < last && p[high + 1] > edge) {
      high++;
    }
    if (high - low < 2 * (2 * SMOOTH + 1) - 4) {
      throw new Refusal(
          "signal",
          "What stands out here is a line, not a carrier with data; or its symbol rate is below a"
              + " few hundredths of the band. Look at less band.");
    }
    double sum = 0;
    double moment = 0;
    for (int i = low; i <= high; i++) {
      sum += p[i] - floor;
      moment += (p[i] - floor) * i;
    }
    double offset = (moment / sum + 0.5) * cell - fs / 2;
    double width = (high - low + 1) * cell;
    return new Place(offset, width, samples, cell, db, raw, low, high);
  }

  private static int place(double hz, double cell) {
    return (int) Math.max(0, Math.min(CELLS - 1, Math.floor(hz / cell + CELLS / 2.0)));
  }

  private static double[] smoothed(double[] p) {
    double[] out = new double[p.length];
    for (int i = 0; i < p.length; i++) {
      int count = 0;
      for (int k = Math.max(0, i - SMOOTH); k <= Math.min(p.length - 1, i + SMOOTH); k++) {
        out[i] += p[k];
        count++;
      }
      out[i] /= count;
    }
    return out;
  }

  /** The line of |y|^2 between half of the width and all of it: rate and its uncertainty. */
  private static double[] rate(float[] iq, int samples, double fs, double offset, double width) {
    int length = Integer.highestOneBit(2 * samples - 1);
    double[] lines = new double[2 * length];
    for (int i = 0; i < samples; i++) {
      lines[2 * i] = iq[2 * i];
      lines[2 * i + 1] = iq[2 * i + 1];
    }
    DoubleTransforms.of(length).complexForward(lines);
    double bin = fs / length;
    int middle = (int) Math.rint(offset / bin);
    int reach = (int) Math.min(length / 2.0 - 1, 0.65 * width / bin);
    int out = 64;
    while (out * bin < 4 * width) {
      out *= 2;
    }
    double[] z = new double[2 * out];
    for (int k = -reach; k <= reach; k++) {
      int from = 2 * Math.floorMod(middle + k, length);
      int to = 2 * Math.floorMod(k, out);
      z[to] = lines[from];
      z[to + 1] = lines[from + 1];
    }
    DoubleTransforms.of(out).complexInverse(z, false);
    int n = (int) (samples / fs * out * bin);
    double[] power = new double[out];
    double mean = 0;
    for (int i = 0; i < n; i++) {
      power[i] = z[2 * i] * z[2 * i] + z[2 * i + 1] * z[2 * i + 1];
      mean += power[i] / n;
    }
    for (int i = 0; i < n; i++) {
      power[i] = (power[i] - mean) * (1 - Math.cos(2 * Math.PI * (i + 0.5) / n));
    }
    DoubleTransforms.of(out).realForward(power);
    int first = (int) (0.45 * width / bin);
    int last = (int) Math.min(out / 2.0 - 2, 1.05 * width / bin);
    double[] level = new double[last - first + 1];
    int best = 0;
    for (int k = first; k <= last; k++) {
      int i = k - first;
      level[i] = power[2 * k] * power[2 * k] + power[2 * k + 1] * power[2 * k + 1];
      best = level[i] > level[best] ? i : best;
    }
    double[] sorted = level.clone();
    Arrays.sort(sorted);
    double around = sorted[sorted.length / 2];
    if (!(level[best] > LINE * around) || best < 1 || best > level.length - 2) {
      throw new Refusal(
          "symbolRateHz",
          "The signal has no line at a symbol rate: it may be analog, have a constant envelope or a"
              + " very small roll-off, or the record is too short.");
    }
    double a = Math.sqrt(level[best - 1]);
    double b = Math.sqrt(level[best]);
    double c = Math.sqrt(level[best + 1]);
    double fine = (a - c) / (2 * (a - 2 * b + c));
    double over = Math.sqrt(level[best] / around);
    return new double[] {(first + best + fine) * bin, 2 * fs / samples / Math.max(1, over / SHARP)};
  }

  /** The raised cosine whose shape leaves the least of the spectrum, over a level floor. */
  private static double rollOff(
      double[] p, int low, int high, double cell, double offset, double rate, double fs) {
    double best = 0.35;
    double least = Double.POSITIVE_INFINITY;
    int from = Math.max(0, low - (high - low) / 4);
    int to = Math.min(p.length - 1, high + (high - low) / 4);
    for (int step = 5; step <= 100; step++) {
      PulseShape shape = new PulseShape(PulseShape.Kind.RAISED_COSINE, step / 100.0);
      double n = to - from + 1;
      double h1 = 0;
      double h2 = 0;
      double y1 = 0;
      double hy = 0;
      double y2 = 0;
      for (int i = from; i <= to; i++) {
        double h = shape.response(((i + 0.5) * cell - fs / 2 - offset) / rate);
        h1 += h;
        h2 += h * h;
        y1 += p[i];
        hy += h * p[i];
        y2 += p[i] * p[i];
      }
      double gain = (n * hy - h1 * y1) / (n * h2 - h1 * h1);
      double base = (y1 - gain * h1) / n;
      double left = y2 - gain * hy - base * y1;
      if (left < least) {
        least = left;
        best = step / 100.0;
      }
    }
    return best;
  }
}
