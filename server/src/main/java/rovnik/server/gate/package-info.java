/**
 * The one place that says whether power may flow. Sources, receivers, analyzers, calibrations and
 * guided work all ask here, with a job or without one, and what a user gave as a reason against the
 * level plan is remembered here.
 */
package rovnik.server.gate;
