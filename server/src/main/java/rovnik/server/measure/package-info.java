/**
 * Measurements of what is on file: recordings, networks and kept runs, with the same settings and
 * the same outcomes as a live look. The catalogue says what there is.
 */
package rovnik.server.measure;
