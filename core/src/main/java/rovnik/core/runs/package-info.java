/** What two outcomes of any kind have in common and what sets them apart. */
package rovnik.core.runs;
