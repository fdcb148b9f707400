package rovnik.core.time;

/**
 * Something at one frequency that is there for some of the time.
 *
 * @param point of the spectra
 * @param power highest that it had, 1 for full scale
 * @param frames spectra in which it was within 6 dB of that
 * @param runs stretches of such spectra
 * @param longest of them, in spectra
 */
record Presence(int point, double power, int frames, int runs, int longest) {}
