/**
 * From samples to a spectrum: estimators, layouts, peaks, readings with their uncertainty, further
 * traces.
 */
package rovnik.core.spectrum;
