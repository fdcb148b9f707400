/**
 * Sessions: one measurement of one source, who holds it, what it publishes and to whom. {@code
 * Measuring} is what a measurement brings; {@code MeasuringSession} does the rest.
 */
package rovnik.server.live;
