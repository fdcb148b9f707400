/** Noise sources that are switched between hot and cold. */
package rovnik.instruments.noise;
