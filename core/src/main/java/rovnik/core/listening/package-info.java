/** What a channel sounds like: demodulated without gaps, with squelch, and what is heard in it. */
package rovnik.core.listening;
