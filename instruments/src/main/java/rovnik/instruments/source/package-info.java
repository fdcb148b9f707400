/** Signal sources and switched pads. */
package rovnik.instruments.source;
