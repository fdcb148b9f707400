package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.nets.NetMeasurement;
import rovnik.core.nets.NetSettings;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of the comparison of bursts with nets of a board, as sent and stored.
 *
 * @param centreHz middle of the band of the bursts, at the reading plane
 * @param bandHz that bursts are looked for in, 3 dB down at its edges
 * @param seconds length of a look
 * @param net1 name of the net that the probe at channel 1 touches, "" for none
 * @param net2 name of the net that the probe at channel 2 touches, "" for none
 * @param coincidentSeconds a burst that begins within this time of an edge is coincident with it
 * @param togetherSeconds lags of one net may differ by this much to each side
 * @param restSeconds edges that follow one another faster are one activity
 * @param laterSeconds how much later signals reach the oscilloscope than the receiver, by cables
 * @param ranking nets of one ranking are compared; another number begins an empty one
 * @param oscilloscopeId beside the receiver, on its trigger; null for the only one
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "NetSettings")
public record NetSettingsDto(
    double centreHz,
    double bandHz,
    double seconds,
    String net1,
    String net2,
    double coincidentSeconds,
    double togetherSeconds,
    double restSeconds,
    double laterSeconds,
    int ranking,
    @Nullable Long oscilloscopeId,
    double referenceLevelDbm)
    implements RecordSettings<NetSettingsDto> {
  static final NetSettingsDto FIRST =
      new NetSettingsDto(458.525e6, 500e3, 0.05, "net 1", "", 2e-6, 1e-6, 20e-6, 0, 1, null, 33);

  /** Bursts near a frequency, and two nets. */
  public static NetSettingsDto of(
      double centreHz,
      double bandHz,
      double seconds,
      String net1,
      String net2,
      double referenceDbm) {
    return new NetSettingsDto(
        centreHz,
        bandHz,
        seconds,
        net1,
        net2,
        FIRST.coincidentSeconds,
        FIRST.togetherSeconds,
        FIRST.restSeconds,
        0,
        1,
        null,
        referenceDbm);
  }

  @Override
  public double startSeconds() {
    return 0;
  }

  @Override
  public NetSettingsDto ofWhole() {
    return this;
  }

  @Override
  public NetSettingsDto withReference(double levelDbm) {
    return new NetSettingsDto(
        centreHz,
        bandHz,
        seconds,
        net1,
        net2,
        coincidentSeconds,
        togetherSeconds,
        restSeconds,
        laterSeconds,
        ranking,
        oscilloscopeId,
        levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new NetMeasurement(
        new NetSettings(
            centreHz,
            bandHz,
            seconds,
            List.of(RecordSettings.words("net1", net1), RecordSettings.words("net2", net2)),
            coincidentSeconds,
            togetherSeconds,
            restSeconds,
            laterSeconds,
            ranking));
  }
}
