/** Where on a board emissions are strongest. */
package rovnik.core.places;
