/** Recordings in files of their own, with their calibration. */
package rovnik.server.recordings;
