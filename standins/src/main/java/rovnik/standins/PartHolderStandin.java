package rovnik.standins;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;

/** The place on the bench where a part is plugged in: stands for the hand that does it. */
class PartHolderStandin extends ScpiInstrument {
  private final Supplier<List<String>> parts;
  private final Consumer<String> plug;

  PartHolderStandin(
      String name, Supplier<List<String>> parts, Consumer<String> plug, Supplier<String> plugged) {
    super("Rovnik," + name + " stand-in,1,1.0");
    this.parts = parts;
    this.plug = plug;
    both("ROUTe:PART", this::plug, plugged);
    query("ROUTe:PART:CATalog", () -> String.join(",", parts.get()));
  }

  private void plug(String quoted) {
    String wanted = quoted.replaceAll("^[\"']|[\"']$", "");
    for (String part : parts.get()) {
      if (part.equalsIgnoreCase(wanted)) {
        plug.accept(part);
        return;
      }
    }
    throw ScpiError.illegalValue(quoted);
  }

  @Override
  protected void reset() {
    plug.accept(parts.get().get(0));
  }
}
