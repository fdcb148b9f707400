/**
 * What any measurement leads to: an {@link rovnik.core.result.Outcome} of series, tables and
 * readings. Nothing here knows which measurement it was, so that screens, runs, reports,
 * comparisons and files loop over outcomes and need no kind of their own.
 */
package rovnik.core.result;
