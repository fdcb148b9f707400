package rovnik.core.signal;

/**
 * What a window does to a spectrum.
 *
 * @param coherentGain mean of the window: the gain for a tone on a bin
 * @param enbwBins equivalent noise bandwidth in bins
 * @param width3dbBins full width between the half-power points in bins; Rovnik's RBW is this width
 * @param scallopLossDb loss of a tone half-way between two bins, positive dB
 * @param overlapAmplitude correlation of noise in two segments that overlap by half, as a voltage
 * @param spread how many times wider than a band of one over the window's length is what one
 *     segment says of noise alone: L sum w^4 / (sum w^2)^2
 * @param overlapSpread the same between two segments that overlap by half
 */
public record WindowFigures(
    double coherentGain,
    double enbwBins,
    double width3dbBins,
    double scallopLossDb,
    double overlapAmplitude,
    double spread,
    double overlapSpread) {}
