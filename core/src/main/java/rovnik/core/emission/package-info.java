/**
 * Numbers of emissions from a spectrum: bandwidth, channels, masks, products, phase noise. Each
 * class names the source of its formula; {@code SpectrumOutcome} and {@code PhaseNoiseOutcome} put
 * them into the form that all measurements share.
 */
package rovnik.core.emission;
