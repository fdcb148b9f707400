/** Places where a part is plugged in. */
package rovnik.instruments.parts;
