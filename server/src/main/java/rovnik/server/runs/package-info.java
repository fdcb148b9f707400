/**
 * Kept runs of any kind: settings, outcome, attachments and conditions of one acquisition, written
 * in one transaction and never changed but for name and note.
 */
package rovnik.server.runs;
