/** Photographs of boards that near-field probes are moved over. */
package rovnik.server.boards;
