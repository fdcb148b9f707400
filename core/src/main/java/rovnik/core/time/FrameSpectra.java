package rovnik.core.time;

import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Transforms;
import rovnik.core.spectrum.SpectrumLayout;

/** Spectra of a record, one after the other. */
final class FrameSpectra {
  /** Who looks at them. */
  interface Looker {
    /**
     * @param power of each shown point, 1 for a tone of full scale; used again afterwards
     */
    void look(int frame, float[] power);
  }

  private final IqRecord record;
  private final SpectrumLayout layout;
  private final int from;
  private final int hop;
  private final int frames;

  /**
   * @param from first sample
   * @param samples that there are
   * @param hop from one spectrum to the next
   */
  FrameSpectra(IqRecord record, SpectrumLayout layout, int from, int samples, int hop) {
    this.record = record;
    this.layout = layout;
    this.from = from;
    this.hop = hop;
    this.frames = (samples - layout.windowLength()) / hop + 1;
  }

  int frames() {
    return frames;
  }

  int hop() {
    return hop;
  }

  SpectrumLayout layout() {
    return layout;
  }

  /** Middle of a spectrum's window, from the first sample. */
  double seconds(double frame) {
    return (frame * hop + layout.windowLength() / 2.0) / layout.sampleRateHz();
  }

  double stepSeconds() {
    return hop / layout.sampleRateHz();
  }

  void each(Looker looker) {
    int n = layout.fftLength();
    int length = layout.windowLength();
    ComplexFft fft = Transforms.ofLength(n);
    double scale = 1 / (layout.window().figures().coherentGain() * length);
    double[] w = layout.window().samples(length);
    float[] window = new float[n];
    for (int i = 0; i < length; i++) {
      window[i] = (float) (w[i] * scale);
    }
    int points = layout.points();
    int[] places = new int[points];
    for (int i = 0; i < points; i++) {
      places[i] = fft.placeOf(Math.floorMod(layout.firstBin() + i, n));
    }
    float[] sum = new float[n];
    float[] power = new float[points];
    for (int frame = 0; frame < frames; frame++) {
      java.util.Arrays.fill(sum, 0);
      fft.addPower(record.iq(), from + frame * hop, window, sum);
      for (int i = 0; i < points; i++) {
        power[i] = sum[places[i]];
      }
      looker.look(frame, power);
    }
  }
}
