/**
 * Outcomes as they leave the server and come back: as JSON for scripts and runs, as frames with
 * their arrays in binary for screens.
 */
package rovnik.server.results;
