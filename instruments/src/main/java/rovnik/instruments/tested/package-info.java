/** Receivers that are tested, and what they tell of what they receive. */
package rovnik.instruments.tested;
