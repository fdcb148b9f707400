package rovnik.core.path;

import rovnik.core.Refusal;

/**
 * What an element does to frequency, from its input to its output. Identity and shift today;
 * inversion and sampling alias join here.
 */
public sealed interface FrequencyMap {
  /** Frequency at the output for a frequency at the input. */
  double toOutputHz(double inputHz);

  /** Frequency at the input for a frequency at the output. */
  double toInputHz(double outputHz);

  /** Input and output have the same frequency. */
  record Identity() implements FrequencyMap {
    @Override
    public double toOutputHz(double inputHz) {
      return inputHz;
    }

    @Override
    public double toInputHz(double outputHz) {
      return outputHz;
    }
  }

  /**
   * The output is shifted, as by a mixer that keeps the direction of the band.
   *
   * @param shiftHz output minus input; negative for a down-converter
   */
  record Shift(double shiftHz) implements FrequencyMap {
    public Shift {
      Refusal.finite("shiftHz", shiftHz);
    }

    @Override
    public double toOutputHz(double inputHz) {
      return inputHz + shiftHz;
    }

    @Override
    public double toInputHz(double outputHz) {
      return outputHz - shiftHz;
    }
  }
}
