package rovnik.standins;

import java.util.Locale;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.QuayLink;
import rovnik.standins.world.Truth;

/** The service port of the quay link radio: on and off, and what it says of itself. */
final class QuayLinkStandin extends ScpiInstrument {
  private final QuayLink link;

  QuayLinkStandin(QuayLink link) {
    super("Rovnik,Quay link stand-in,1,1.0");
    this.link = link;
    both("OUTPut[:STATe]", p -> link.setOn(onOff(p)), () -> link.on() ? "1" : "0");
    query("[SOURce:]FREQuency[:CW]", () -> String.format(Locale.ROOT, "%.9E", Truth.QUAY_HZ));
    query("[SOURce:]POWer[:LEVel]", () -> String.format(Locale.ROOT, "%.2f", Truth.QUAY_DBM));
  }

  @Override
  protected void reset() {
    link.setOn(false);
    link.trim(false);
  }
}
