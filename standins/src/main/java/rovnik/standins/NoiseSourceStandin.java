package rovnik.standins;

import java.util.Locale;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.NoiseBench;
import rovnik.standins.world.Truth;

/** A noise source that is switched hot and cold; its label tells the excess noise ratio. */
final class NoiseSourceStandin extends ScpiInstrument {
  private final NoiseBench bench;

  NoiseSourceStandin(NoiseBench bench) {
    super("Rovnik,Noise source stand-in,1,1.0");
    this.bench = bench;
    both("OUTPut[:STATe]", p -> bench.setHot(onOff(p)), () -> bench.hot() ? "1" : "0");
    query(
        "[SOURce:]NOISe:ENRatio",
        () -> String.format(Locale.ROOT, "%.2f", Truth.NOISE_SOURCE_LABEL_DB));
  }

  @Override
  protected void reset() {
    bench.setHot(false);
  }
}
