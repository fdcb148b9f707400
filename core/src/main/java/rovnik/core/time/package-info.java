/** What comes and goes: bursts and when they come. */
package rovnik.core.time;
