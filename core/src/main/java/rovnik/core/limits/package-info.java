/** What a number is held to, and what comes of it. */
package rovnik.core.limits;
