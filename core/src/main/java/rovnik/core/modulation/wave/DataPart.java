package rovnik.core.modulation.wave;

import rovnik.core.Refusal;
import rovnik.core.modulation.Modulator;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;

/** One carrier with data. */
public record DataPart(SingleCarrier carrier) implements WavePart {
  @Override
  public String words() {
    return carrier.words();
  }

  @Override
  public double reachHz() {
    double half = carrier.halfBandHz();
    return Double.isInfinite(half) ? carrier.symbolRateHz() : half;
  }

  @Override
  public Period period(double sampleRateHz) {
    long samples = new Modulator(carrier, sampleRateHz).seamlessSamples();
    return samples < 0 ? Period.NONE : new Period(samples);
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    double perSymbol = sampleRateHz / carrier.symbolRateHz();
    Waveform w =
        new Modulator(carrier, sampleRateHz).make((int) Math.ceil(samples / perSymbol - 1e-9));
    if (w.samples() < samples) {
      w = new Modulator(carrier, sampleRateHz).make((int) Math.ceil(samples / perSymbol) + 1);
    }
    if (w.samples() < samples) {
      throw new Refusal("symbols", "The waveform is too short for this carrier.");
    }
    double[] out = new double[2 * samples];
    for (int i = 0; i < out.length; i++) {
      out[i] = w.iq()[i];
    }
    return out;
  }
}
