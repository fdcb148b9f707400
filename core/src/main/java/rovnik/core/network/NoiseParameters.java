package rovnik.core.network;

/**
 * Noise parameters of a two-port over frequency.
 *
 * @param frequencyHz rising frequencies
 * @param minimumFigureDb lowest noise figure
 * @param sourceReflection real and imaginary part, in turns, of the source reflection that gives it
 * @param resistance effective noise resistance over the reference impedance, as the file has it
 */
public record NoiseParameters(
    double[] frequencyHz,
    double[] minimumFigureDb,
    double[] sourceReflection,
    double[] resistance) {}
