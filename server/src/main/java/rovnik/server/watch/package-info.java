/** Long watches: numbers of a live measurement followed for hours and days. */
package rovnik.server.watch;
