package rovnik.core.path;

/**
 * The one place where numbers move between the instrument's port and the reading plane. Every
 * level, frequency, limit and exported file goes through here.
 */
public final class PathCorrection {
  private final SignalPath path;
  private final int plane;
  private final int port;

  public PathCorrection(SignalPath path) {
    this.path = path;
    this.plane = path.readingPlane();
    this.port = path.planes() - 1;
  }

  public String planeName() {
    return path.planeName(plane);
  }

  public SignalPath path() {
    return path;
  }

  public double planeToPortHz(double planeHz) {
    return path.frequencyBetween(plane, port, planeHz);
  }

  public double portToPlaneHz(double portHz) {
    return path.frequencyBetween(port, plane, portHz);
  }

  /** Gain from the reading plane to the port for a signal at {@code planeHz} at the plane. */
  public double gainToPortDb(double planeHz) {
    return path.gainBetweenDb(plane, port, planeHz);
  }

  /** Frequency at the reading plane of what has {@code sourceHz} at the source. */
  public double sourceToPlaneHz(double sourceHz) {
    return path.frequencyBetween(0, plane, sourceHz);
  }

  /** Frequency at the source of what has {@code planeHz} at the reading plane. */
  public double planeToSourceHz(double planeHz) {
    return path.frequencyBetween(plane, 0, planeHz);
  }

  /** Gain from the source's output to the reading plane. */
  public double gainFromSourceDb(double sourceHz) {
    return path.gainBetweenDb(0, plane, sourceHz);
  }

  /**
   * Refers levels at the port to the plane, in place.
   *
   * @param levelDbm levels at the port, on an even grid of plane frequencies; overwritten
   */
  public void applyTo(float[] levelDbm, double planeStartHz, double stepHz) {
    if (path.flatBetween(plane, port)) {
      float gainDb = (float) gainToPortDb(planeStartHz);
      for (int i = 0; i < levelDbm.length; i++) {
        levelDbm[i] -= gainDb;
      }
      return;
    }
    for (int i = 0; i < levelDbm.length; i++) {
      levelDbm[i] -= (float) gainToPortDb(planeStartHz + i * stepHz);
    }
  }

  /** Name of an element whose gain is only held from the end of its table here, or "". */
  public String uncovered(double planeHz) {
    return path.uncovered(plane, port, planeHz);
  }
}
