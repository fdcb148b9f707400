package rovnik.server.gate;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import rovnik.server.config.Conflict;

/** Lets power flow, or says what stands in the way; remembers the reasons that were given. */
@Component
public class PowerGate {
  private record Given(Flow flow, String reason) {}

  private final Map<String, Given> given = new ConcurrentHashMap<>();

  /**
   * What stands in the way, "" if power may flow.
   *
   * @param who wants it, such as "i1/spectrum"
   */
  public String trouble(String who, Flow flow) {
    return flow.trouble().isEmpty() || covered(who, flow) ? "" : flow.trouble();
  }

  /** The reason for which power flows against the level plan, "" if it does not. */
  public String reason(String who, Flow flow) {
    return !flow.trouble().isEmpty() && covered(who, flow) ? given.get(who).reason() : "";
  }

  /**
   * Asks for power to flow; refused with a {@link Conflict} of field "levelPlan" if something would
   * be overloaded or damaged and no reason was given.
   *
   * @param reason why it shall flow all the same; null or blank if there is none
   */
  public void ask(String who, Flow flow, String reason) {
    if (trouble(who, flow).isEmpty()) {
      return;
    }
    if (reason == null || reason.isBlank()) {
      throw Conflict.levels(flow.trouble());
    }
    given.put(who, new Given(flow, reason.strip()));
  }

  private boolean covered(String who, Flow flow) {
    Given before = given.get(who);
    return before != null && flow.within(before.flow());
  }
}
