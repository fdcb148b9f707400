/**
 * Carriers whose amplitude, frequency or phase follows something analog, and what that sounds like.
 */
package rovnik.core.modulation.analog;
