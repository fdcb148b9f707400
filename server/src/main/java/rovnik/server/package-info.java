/** The server: REST, web sockets and the database around {@code core} and {@code instruments}. */
package rovnik.server;
