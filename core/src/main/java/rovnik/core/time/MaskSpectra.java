package rovnik.core.time;

import java.util.Arrays;
import rovnik.core.Refusal;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Transforms;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.units.Frequency;

/**
 * Spectra of samples that go on, each half a window after the one before, held against a mask: how
 * far the farthest point of each is over it.
 */
final class MaskSpectra {
  /** Who takes how far spectra that follow one another are over the mask; 1 is on it. */
  interface Taker {
    void take(float[] over, float[] where, int count);
  }

  /** A strong line beside a low part of the mask must not reach over it. */
  static final Window WINDOW = Window.BLACKMAN_HARRIS;

  private static final int PIECE = 256;
  private static final int MOST_POINTS = 1 << 16;

  private final int length;
  private final int hop;
  private final ComplexFft fft;
  private final float[] window;
  private final float[] sum;
  private final int[] places;

  /** 1 over what the mask allows at each point, of full scale. */
  private final float[] factor;

  private final PlaneFrequencies at;
  private final double knownHz;
  private final double[] maskDb;
  private final float[] highest;
  private final float[] farthest;
  private final float[] over = new float[PIECE];
  private final float[] where = new float[PIECE];
  private final float[] held;
  private int kept;
  private boolean wasOver;
  private float most;
  private boolean any;
  private long spectra;

  MaskSpectra(IqRecord record, MeasurementContext context, TriggerMask mask, double nearHz) {
    double fs = record.sampleRateHz();
    double width = mask.highHz() - mask.lowHz();
    double span = Math.min(width, 2 * (fs / 2 - Math.abs(nearHz)));
    if (span < width * (1 - 1e-6)) {
      throw mask.beyond("what the record holds. Make it narrower.");
    }
    SpectrumLayout layout = layout(fs, nearHz, span, mask.rbw());
    this.length = layout.windowLength();
    this.hop = Math.max(1, length / 2);
    this.fft = Transforms.ofLength(layout.fftLength());
    this.knownHz = Math.pow(10, Math.floor(Math.log10(layout.rbwHz() / 4)));
    int n = layout.fftLength();
    double[] w = WINDOW.samples(length);
    double scale = 1 / (WINDOW.figures().coherentGain() * length);
    this.window = new float[n];
    for (int i = 0; i < length; i++) {
      window[i] = (float) (w[i] * scale);
    }
    this.sum = new float[n];
    int points = layout.points();
    this.places = new int[points];
    this.at = PlaneFrequencies.of(record, context, layout.offsetHz(0), layout.stepHz(), points);
    this.factor = new float[points];
    this.maskDb = new double[points];
    for (int i = 0; i < points; i++) {
      places[i] = fft.placeOf(Math.floorMod(layout.firstBin() + i, n));
      maskDb[i] = mask.levelDb(at.hz()[i]);
      factor[i] = (float) Math.pow(10, (at.addDb()[i] - maskDb[i]) / 10); // 0 outside the mask
    }
    this.highest = new float[points];
    this.farthest = new float[points];
    this.held = new float[2 * (length + PIECE * hop)];
  }

  private static SpectrumLayout layout(double fs, double nearHz, double span, double rbw) {
    SpectrumLayout layout = SpectrumLayout.plan(fs, nearHz, span, rbw, WINDOW);
    if (layout.points() > MOST_POINTS) {
      throw new Refusal(
          "rbwHz",
          "A mask is held against at most "
              + MOST_POINTS
              + " points. Take an RBW of at least "
              + Frequency.ofHertz(Math.ceil(rbw * layout.points() / MOST_POINTS))
              + ", or a narrower mask.");
    }
    return layout;
  }

  /** Samples of one spectrum. */
  int length() {
    return length;
  }

  /** How many there were. */
  long spectra() {
    return spectra;
  }

  /** Samples from one spectrum to the next. */
  int hop() {
    return hop;
  }

  /** Samples are missing here: what was held is dropped. */
  void gap() {
    kept = 0;
    wasOver = false;
  }

  /** Takes samples that follow those before. */
  void take(float[] iq, int from, int samples, Taker taker) {
    int at = from;
    int end = from + samples;
    while (at < end) {
      int now = Math.min(end - at, held.length / 2 - kept);
      System.arraycopy(iq, 2 * at, held, 2 * kept, 2 * now);
      kept += now;
      at += now;
      int frames = kept < length ? 0 : (kept - length) / hop + 1;
      for (int done = 0; done < frames; ) {
        int count = Math.min(PIECE, frames - done);
        for (int k = 0; k < count; k++) {
          frame((done + k) * hop, k);
        }
        taker.take(over, where, count);
        done += count;
      }
      int used = frames * hop;
      System.arraycopy(held, 2 * used, held, 0, 2 * (kept - used));
      kept -= used;
    }
  }

  private void frame(int first, int k) {
    spectra++;
    Arrays.fill(sum, 0);
    fft.addPower(held, first, window, sum);
    float best = 0;
    int bin = 0;
    for (int i = 0; i < places.length; i++) {
      float p = sum[places[i]];
      highest[i] = Math.max(highest[i], p);
      float ratio = p * factor[i];
      if (ratio > best) {
        best = ratio;
        bin = i;
      }
    }
    over[k] = best;
    where[k] = (float) (at.hz()[bin] - at.hz()[0]);
    remember(best);
  }

  /** The spectrum that was farthest over the mask when it was last. */
  private void remember(float best) {
    boolean now = best >= 1;
    if (now && (!wasOver || best > most)) {
      most = best;
      any = true;
      for (int i = 0; i < places.length; i++) {
        farthest[i] = sum[places[i]];
      }
    }
    wasOver = now;
  }

  PlaneFrequencies at() {
    return at;
  }

  /** Frequency at the plane of what a taker got as its place, to a tenth of the RBW or so. */
  double hz(double where) {
    return Math.rint((at.hz()[0] + where) / knownHz) * knownHz;
  }

  /** What is allowed at each point, infinite where nothing is said. */
  double[] maskDb() {
    return maskDb;
  }

  /** Levels at the plane of the highest of each point so far. */
  double[] highestDb() {
    return db(highest);
  }

  /** Levels of the spectrum that was farthest over the mask when one last was; null if none was. */
  double[] farthestDb() {
    return any ? db(farthest) : null;
  }

  private double[] db(float[] power) {
    double[] out = new double[power.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = 10 * Math.log10(Math.max(power[i], 1e-30)) + at.addDb()[i];
    }
    return out;
  }
}
