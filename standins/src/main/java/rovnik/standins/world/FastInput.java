package rovnik.standins.world;

import java.util.List;

/**
 * What the fast receiver is plugged into: an output of the generator, or something in the field.
 * The field has a time of its own, so that what is received there without a gap goes on however
 * much others receive meanwhile; at the generator it is the same for all.
 */
public final class FastInput implements PortSignal {
  private static final String AERIAL = "aerial on the quay";
  private static final String PROBE = "probe over the logger board";

  private static final String LINK = "quay link";

  /** All of it. */
  public static final List<String> CHOICES =
      List.of(GeneratorLine.OUTPUTS.get(0), GeneratorLine.OUTPUTS.get(1), AERIAL, PROBE, LINK);

  private final GeneratorLine line;
  private final Aerial aerial;
  private final LoggerBoard board;
  private final QuayLink link;
  private final Clock field = new Clock();
  private String plugged = CHOICES.get(0);

  public FastInput(World world, QuayLink link) {
    this.link = link;
    this.line = new GeneratorLine(world);
    this.aerial = new Aerial(field);
    this.board = new LoggerBoard(field);
  }

  public synchronized void plug(String wanted) {
    plugged = wanted;
    if (GeneratorLine.OUTPUTS.contains(wanted)) {
      line.plug(wanted);
    }
  }

  public synchronized String plugged() {
    return plugged;
  }

  /** Places on the logger board that the probe can be held over. */
  public static final List<String> PLACES = List.copyOf(Truth.LOGGER_PLACES_DB.keySet());

  public void hold(String place) {
    board.hold(place);
  }

  public String place() {
    return board.place();
  }

  /** The time of the field, the logger board's with it. */
  public Clock field() {
    return field;
  }

  private PortSignal now() {
    return switch (plugged()) {
      case AERIAL -> aerial;
      case PROBE -> board;
      case LINK -> link;
      default -> line;
    };
  }

  @Override
  public Clock clock() {
    return now().clock();
  }

  @Override
  public double levelAtPortDbm() {
    return now().levelAtPortDbm();
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    now().receive(iq, samples, centreHz, rateHz);
  }
}
