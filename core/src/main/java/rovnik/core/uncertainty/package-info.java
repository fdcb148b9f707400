/** Budgets of uncertainty: contributions with their standard values, expanded with k = 2. */
package rovnik.core.uncertainty;
