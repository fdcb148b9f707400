package rovnik.core.path;

import java.util.Arrays;
import rovnik.core.Refusal;

/** Gain of an element over frequency, in dB; a loss is negative. */
public sealed interface Gain {
  /** Gain at a frequency at the element's input. */
  double dbAt(double frequencyHz);

  /** False where the gain is only held from the end of a table. */
  boolean covers(double frequencyHz);

  /** The same gain at every frequency. */
  record Fixed(double gainDb) implements Gain {
    public Fixed {
      Refusal.finite("gainDb", gainDb);
    }

    @Override
    public double dbAt(double frequencyHz) {
      return gainDb;
    }

    @Override
    public boolean covers(double frequencyHz) {
      return true;
    }
  }

  /**
   * A table over frequency, straight lines in dB between its rows, held beyond its ends.
   *
   * @param frequencyHz rising frequencies
   * @param gainDb as many gains
   */
  record Table(double[] frequencyHz, double[] gainDb) implements Gain {
    public Table {
      if (frequencyHz.length == 0 || frequencyHz.length != gainDb.length) {
        throw new Refusal("gain", "A gain table needs at least one row of frequency and gain.");
      }
      for (int i = 0; i < frequencyHz.length; i++) {
        Refusal.finite("gain", frequencyHz[i]);
        Refusal.finite("gain", gainDb[i]);
        if (i > 0 && !(frequencyHz[i] > frequencyHz[i - 1])) {
          throw new Refusal(
              "gain", "The frequencies of a gain table must rise; row " + (i + 1) + " does not.");
        }
      }
    }

    @Override
    public double dbAt(double hz) {
      int at = Arrays.binarySearch(frequencyHz, hz);
      if (at >= 0) {
        return gainDb[at];
      }
      int right = -at - 1;
      if (right == 0) {
        return gainDb[0];
      }
      if (right == frequencyHz.length) {
        return gainDb[right - 1];
      }
      double share = (hz - frequencyHz[right - 1]) / (frequencyHz[right] - frequencyHz[right - 1]);
      return gainDb[right - 1] + share * (gainDb[right] - gainDb[right - 1]);
    }

    @Override
    public boolean covers(double hz) {
      return hz >= frequencyHz[0] && hz <= frequencyHz[frequencyHz.length - 1];
    }
  }
}
