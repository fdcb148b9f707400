package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.spectrum.Peak;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;

/**
 * Header of one frame to the browser; the levels follow it as float32.
 *
 * @param sequence grows by one a frame
 * @param acquiredAtMillis when the newest samples were complete
 * @param recordSeconds length of one transform's record
 * @param attenuationDb of the receiver, null for a recording
 * @param marks why the levels must not be trusted
 */
@Schema(name = "Frame")
public record Frame(
    String source,
    long sequence,
    long acquiredAtMillis,
    SettingsDto settings,
    double startHz,
    double stepHz,
    int points,
    String unit,
    String plane,
    double rbwHz,
    double enbwHz,
    int segments,
    int fftLength,
    double sampleRateHz,
    double recordSeconds,
    Double attenuationDb,
    List<String> marks,
    List<Peak> peaks,
    List<ReadingDto> readings) {}
