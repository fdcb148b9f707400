package rovnik.core.network;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.path.ElementKind;
import rovnik.core.path.LevelFinding;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.path.SourceLevel;

/**
 * Levels of a two-port measurement: what port 1 sends forward through the path, and what port 2
 * sends back into it.
 *
 * @param forward plan at the frequency where the least headroom is left
 * @param atHz that frequency
 * @param backward sentences about what port 2 does
 * @param blocking why no power must flow, "" if it may
 * @param dcQuestion what to check for dc, "" if nothing in the path makes any
 */
public record PortLevels(
    LevelPlan forward, double atHz, List<String> backward, String blocking, String dcQuestion) {

  /** An output that gets more than this from behind may be harmed (common practice). */
  private static final double MOST_BACKWARD_DBM = 0;

  public static PortLevels of(SignalPath path, SweepSettings s) {
    LevelPlan worst = null;
    double at = s.lowestHz();
    for (double hz :
        new double[] {s.lowestHz(), (s.lowestHz() + s.highestHz()) / 2, s.highestHz()}) {
      LevelPlan plan = LevelPlan.of(path, hz, SourceLevel.of(s.powerDbm()));
      if (worst == null || plan.worstHeadroomDb() < worst.worstHeadroomDb()) {
        worst = plan;
        at = hz;
      }
    }
    List<String> backward = new ArrayList<>();
    String blocking = worst.blocking().isEmpty() ? "" : worst.blocking().get(0).sentence();
    String dc = "";
    double level = s.powerDbm();
    for (int i = path.elements().size() - 2; i > 0; i--) {
      PathElement e = path.elements().get(i);
      double gain = e.gain().dbAt(at);
      boolean active =
          gain > 0 && (e.kind() == ElementKind.DUT || e.kind() == ElementKind.AMPLIFIER);
      if (!active) {
        level += gain;
        continue;
      }
      dc =
          e.name()
              + " may put dc on its connectors, and the analyzer's ports bear none: measure it, or"
              + " fit a dc block.";
      if (s.bothPorts()) {
        backward.add(
            String.format(
                Locale.ROOT, "Port 2 sends %+.1f dBm into the output of %s.", level, e.name()));
        if (level > MOST_BACKWARD_DBM && blocking.isEmpty()) {
          blocking =
              String.format(
                  Locale.ROOT,
                  "Port 2 would send %+.1f dBm into the output of %s. Switch port 2 off, or add a"
                      + " pad behind it.",
                  level,
                  e.name());
        }
      }
      break;
    }
    return new PortLevels(worst, at, List.copyOf(backward), blocking, dc);
  }

  /** Whether a finding of the plan forbids power. */
  public boolean blocked() {
    return !blocking.isEmpty()
        || forward.findings().stream().anyMatch(f -> f.severity() == LevelFinding.Severity.DAMAGE);
  }
}
