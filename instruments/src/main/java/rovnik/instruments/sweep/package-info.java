/** Swept analyzers. */
package rovnik.instruments.sweep;
