/** Numbers followed over hours and days: what they came to, when they left their limits. */
package rovnik.core.watch;
