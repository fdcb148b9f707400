/**
 * One socket and its exchanges, each with a time limit. {@code ScpiConnection} closes the stream
 * after any fault that may have put it out of step.
 */
package rovnik.instruments.scpi;
