/** Which net of a board emissions are in step with. */
package rovnik.core.nets;
