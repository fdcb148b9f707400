package rovnik.standins;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;

/** The place on the bench where a part is plugged in: stands for the hand that does it. */
final class PartHolderStandin extends ScpiInstrument {
  private final List<String> parts;
  private final Consumer<String> plug;

  PartHolderStandin(
      String name, List<String> parts, Consumer<String> plug, Supplier<String> plugged) {
    super("Rovnik," + name + " stand-in,1,1.0");
    this.parts = parts;
    this.plug = plug;
    both("ROUTe:PART", this::plug, plugged);
    query("ROUTe:PART:CATalog", () -> String.join(",", parts));
  }

  private void plug(String quoted) {
    String wanted = quoted.replaceAll("^[\"']|[\"']$", "");
    for (String part : parts) {
      if (part.equalsIgnoreCase(wanted)) {
        plug.accept(part);
        return;
      }
    }
    throw ScpiError.illegalValue(quoted);
  }

  @Override
  protected void reset() {
    plug.accept(parts.get(0));
  }
}
