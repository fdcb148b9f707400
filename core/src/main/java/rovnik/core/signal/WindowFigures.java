package rovnik.core.signal;

/**
 * What a window does to a spectrum.
 *
 * @param coherentGain mean of the window: the gain for a tone on a bin
 * @param enbwBins equivalent noise bandwidth in bins
 * @param width3dbBins full width between the half-power points in bins; Rovnik's RBW is this width
 * @param scallopLossDb loss of a tone half-way between two bins, positive dB
 */
public record WindowFigures(
    double coherentGain, double enbwBins, double width3dbBins, double scallopLossDb) {}
