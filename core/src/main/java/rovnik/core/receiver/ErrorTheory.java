package rovnik.core.receiver;

import java.util.Optional;
import org.hipparchus.special.Erf;
import rovnik.core.modulation.Format;

/**
 * Bit error ratio of a Gray-coded format in white noise with perfect timing and carrier.
 *
 * <p>Square QAM: the exact sum of Cho and Yoon, IEEE Trans. Commun. 50 (2002) 1034; BPSK and QPSK:
 * Q(sqrt(2 Eb/N0)); 8PSK: the bound of Proakis, Digital Communications, 2/3 Q(sqrt(6 Eb/N0) sin
 * pi/8).
 */
public final class ErrorTheory {
  private static final double HIGHEST_DB = 60;
  private static final double LOWEST_DB = -20;
  private final int bitsPerSymbol;
  private final boolean circle;

  private ErrorTheory(int bitsPerSymbol, boolean circle) {
    this.bitsPerSymbol = bitsPerSymbol;
    this.circle = circle;
  }

  /** Nothing for a format whose error ratio has no such simple form. */
  public static Optional<ErrorTheory> of(Format format) {
    return switch (format) {
      case BPSK, QPSK, OFFSET_QPSK, QAM16, QAM64, QAM256, QAM1024, QAM4096 ->
          Optional.of(new ErrorTheory(format.constellation().bitsPerSymbol(), false));
      case PSK8 -> Optional.of(new ErrorTheory(3, true));
      default -> Optional.empty();
    };
  }

  /** What is taken for a format without a theory: only the slope of the curve is used. */
  public static ErrorTheory plain() {
    return new ErrorTheory(2, false);
  }

  /** Share of bits that are wrong. */
  public double ratio(double ebN0Db) {
    double g = Math.pow(10, ebN0Db / 10);
    if (circle) {
      return q(Math.sqrt(6 * g) * Math.sin(Math.PI / 8)) * 2 / 3;
    }
    if (bitsPerSymbol <= 2) {
      return q(Math.sqrt(2 * g));
    }
    int places = 1 << bitsPerSymbol / 2;
    double step = Math.sqrt(1.5 * bitsPerSymbol * g / (places * (double) places - 1));
    double sum = 0;
    int bits = bitsPerSymbol / 2;
    for (int k = 1; k <= bits; k++) {
      int most = places - (places >> k);
      for (int i = 0; i < most; i++) {
        int turn = i << k - 1;
        int sign = (turn / places & 1) == 0 ? 1 : -1;
        double weight = (1 << k - 1) - Math.floor((double) turn / places + 0.5);
        sum += sign * weight * Erf.erfc((2 * i + 1) * step) / places;
      }
    }
    return sum / bits;
  }

  private static double q(double x) {
    return 0.5 * Erf.erfc(x / Math.sqrt(2));
  }

  /** Eb/N0 in dB at which so many bits are wrong. */
  public double ebN0Db(double ratio) {
    double low = LOWEST_DB;
    double high = HIGHEST_DB;
    for (int i = 0; i < 60; i++) {
      double middle = (low + high) / 2;
      if (ratio(middle) > ratio) {
        low = middle;
      } else {
        high = middle;
      }
    }
    return (low + high) / 2;
  }
}
