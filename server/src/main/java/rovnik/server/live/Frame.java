package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.spectrum.Curve;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpoiledBand;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import rovnik.server.spectrum.TableDto;

/**
 * Header of one frame to the browser; the levels follow it as float32.
 *
 * @param sequence grows by one a frame
 * @param acquiredAtMillis when the newest samples were complete
 * @param recordSeconds length of one transform's record
 * @param attenuationDb of the receiver, null for a recording
 * @param marks why the levels must not be trusted
 * @param rows labels of the traces that follow the main one, on the same points
 * @param progress 0 to 1 while a wide scan runs for the first time, 1 otherwise
 * @param remainingSeconds of that first pass
 * @param spoiled bands of a scan that must not be trusted
 * @param referenceLevel in the unit of the levels
 * @param linear true if the unit is not one of decibels
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
    List<ReadingDto> readings,
    List<String> rows,
    List<TableDto> tables,
    List<Curve> limitLines,
    double progress,
    double remainingSeconds,
    List<SpoiledBand> spoiled,
    double referenceLevel,
    boolean linear) {}
