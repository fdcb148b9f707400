/** Quantities with their units, SI inside. */
package rovnik.core.units;
