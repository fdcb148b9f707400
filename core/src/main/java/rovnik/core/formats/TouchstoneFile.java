package rovnik.core.formats;

import java.util.List;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NoiseParameters;

/**
 * What a Touchstone file holds.
 *
 * @param network its S-parameters, whatever kind the file has
 * @param noise of a two-port, or null
 * @param version "1" or "2.0" as written
 * @param comments the first comments, without their exclamation mark
 * @param portModes the mixed-mode order of a 2.0 file ("D2,3", "C2,3", "S1"), empty if there is
 *     none
 */
public record TouchstoneFile(
    NetworkData network,
    NoiseParameters noise,
    String version,
    List<String> comments,
    List<String> portModes) {}
