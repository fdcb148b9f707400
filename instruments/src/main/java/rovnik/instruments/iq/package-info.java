/**
 * Receivers of IQ records, plans of their acquisition, and the sharing of one acquisition by
 * several measurements.
 */
package rovnik.instruments.iq;
