/**
 * Files of others: SigMF recordings, Touchstone networks, CSV. Nothing here reads JSON; who does
 * hands over plain values.
 */
package rovnik.core.formats;
