/** Jobs: their path, limits and names. */
package rovnik.server.jobs;
