package rovnik.standins.world;

/** The receiver's own physics: attenuator, noise, curvature, image, dc, converter. */
public final class ReceiverFrontEnd {
  private final World world;
  private final PortSignal port;
  private final ReceiverTruth truth;
  private double[] work = new double[0];
  private Runnable triggerOutput = () -> {};
  private boolean tripped;
  private boolean clipped;

  /** A receiver whose port is at the end of the feeder. */
  public ReceiverFrontEnd(World world) {
    this(world, world);
  }

  /**
   * @param port what its port is connected to
   */
  public ReceiverFrontEnd(World world, PortSignal port) {
    this(world, port, ReceiverTruth.USUAL);
  }

  /** A receiver of another make. */
  public ReceiverFrontEnd(World world, PortSignal port, ReceiverTruth truth) {
    this.world = world;
    this.port = port;
    this.truth = truth;
  }

  /** Connects its trigger output: a pulse at the first sample of each single record. */
  public ReceiverFrontEnd triggering(Runnable input) {
    triggerOutput = input;
    return this;
  }

  /** A single record begins. */
  public void trigger() {
    triggerOutput.run();
  }

  public ReceiverTruth truth() {
    return truth;
  }

  /** True after an input above the damage level, until cleared. */
  public boolean tripped() {
    return tripped;
  }

  public void clearTrip() {
    tripped = false;
  }

  /** True if the converter clipped in the last record. */
  public boolean clipped() {
    return clipped;
  }

  /** Lets samples go by that nobody takes. */
  public void miss(double seconds) {
    port.clock().pass(seconds);
  }

  /** Makes one record, full scale 1.0. */
  public float[] record(double centreHz, double rateHz, int samples, double attenuationDb) {
    if (port.levelAtPortDbm() > Truth.RECEIVER_DAMAGE_DBM) {
      tripped = true;
    }
    if (work.length < 2 * samples) {
      work = new double[2 * samples];
    }
    java.util.Arrays.fill(work, 0, 2 * samples, 0);
    double trueCentreHz = centreHz * (1 + Truth.RECEIVER_REFERENCE_ERROR);
    double start = port.clock().seconds();
    if (!tripped) {
      port.receive(work, samples, trueCentreHz, rateHz);
    }
    double spurDbm = Truth.RECEIVER_SPUR_DBM + attenuationDb;
    World.tone(work, samples, rateHz, Truth.RECEIVER_SPUR_HZ - trueCentreHz, spurDbm, start);

    double noiseDbmPerHz = Truth.THERMAL_DBM_PER_HZ + truth.noiseFigureDb() + attenuationDb;
    double sigma = Math.sqrt(Math.pow(10, noiseDbmPerHz / 10) * rateHz / 2);
    double scale =
        Math.pow(
            10,
            (Truth.receiverErrorDb(centreHz, attenuationDb) - truth.fullScaleDbm(attenuationDb))
                / 20);
    double curve = 1 / Math.pow(10, (truth.iip3Dbm() + attenuationDb) / 10); // at the port, 1 / mW
    double image = Math.pow(10, Truth.RECEIVER_IMAGE_DBC / 20);
    double dc = Math.pow(10, Truth.RECEIVER_DC_DBFS / 20);
    // The converter always runs at its full rate; decimation averages its quantisation noise.
    double steps = (1 << (truth.bits() - 1)) * Math.sqrt(truth.rateHz() / rateHz);
    float[] iq = new float[2 * samples];
    int rails = 0;
    world.noise().add(work, 2 * samples, sigma);
    for (int n = 0; n < samples; n++) {
      double re = work[2 * n];
      double im = work[2 * n + 1];
      double bend = 1 / (1 + (re * re + im * im) * curve);
      double i = (re * bend + image * re * bend) * scale + dc;
      double q = (im * bend - image * im * bend) * scale + 0.4 * dc;
      i = Math.rint(i * steps) / steps;
      q = Math.rint(q * steps) / steps;
      if (Math.abs(i) >= 1 || Math.abs(q) >= 1) {
        rails++;
        i = Math.max(-1, Math.min(1 - 1 / steps, i));
        q = Math.max(-1, Math.min(1 - 1 / steps, q));
      }
      iq[2 * n] = (float) i;
      iq[2 * n + 1] = (float) q;
    }
    clipped = rails > 0;
    return iq;
  }
}
