package rovnik.core.network;

/** Two networks reckoned with, value by value. */
public enum NetworkMath {
  /** The first over the second: in dB the difference. */
  OVER,
  MINUS,
  PLUS,
  TIMES;

  /**
   * The second is taken on the frequencies of the first.
   *
   * @throws rovnik.core.Refusal if it does not reach that far
   */
  public NetworkData of(NetworkData a, NetworkData second) {
    NetworkData b = NetworkChange.on(second, a);
    int ports = Math.min(a.ports(), b.ports());
    double[] s = a.s().clone();
    for (int p = 0; p < a.points(); p++) {
      for (int r = 1; r <= ports; r++) {
        for (int c = 1; c <= ports; c++) {
          int at = a.at(p, r, c);
          double re = a.re(p, r, c);
          double im = a.im(p, r, c);
          double x = b.re(p, r, c);
          double y = b.im(p, r, c);
          double square = x * x + y * y;
          s[at] =
              switch (this) {
                case OVER -> square == 0 ? 0 : (re * x + im * y) / square;
                case MINUS -> re - x;
                case PLUS -> re + x;
                case TIMES -> re * x - im * y;
              };
          s[at + 1] =
              switch (this) {
                case OVER -> square == 0 ? 0 : (im * x - re * y) / square;
                case MINUS -> im - y;
                case PLUS -> im + y;
                case TIMES -> re * y + im * x;
              };
        }
      }
    }
    return new NetworkData(a.ports(), a.referenceOhm(), a.frequencyHz(), s);
  }
}
