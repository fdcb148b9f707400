package rovnik.standins.world;

import java.util.List;

/** What the wide receiver is plugged into: the quay link, or the vector generator. */
public final class WideInput implements PortSignal {
  /** All of it. */
  public static final List<String> CHOICES = List.of("quay link", "vector generator");

  private final QuayLink link;
  private final GeneratorLine line;
  private String plugged = CHOICES.get(0);

  public WideInput(World world, QuayLink link) {
    this.link = link;
    this.line = new GeneratorLine(world);
  }

  public synchronized void plug(String wanted) {
    plugged = wanted;
  }

  public synchronized String plugged() {
    return plugged;
  }

  private PortSignal now() {
    return plugged().equals(CHOICES.get(0)) ? link : line;
  }

  @Override
  public double levelAtPortDbm() {
    return now().levelAtPortDbm();
  }

  @Override
  public Clock clock() {
    return now().clock();
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    now().receive(iq, samples, centreHz, rateHz);
  }
}
