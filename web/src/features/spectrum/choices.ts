/** Windows by their names in settings. */
export const WINDOWS: Record<string, string> = {
  RECTANGULAR: "Rectangular",
  HANN: "Hann",
  HAMMING: "Hamming",
  BLACKMAN: "Blackman",
  BLACKMAN_HARRIS: "Blackman-Harris",
  FLAT_TOP: "Flat-top",
};

/** Detectors by their names in settings. */
export const DETECTORS: Record<string, string> = {
  RMS: "RMS",
  PEAK: "peak",
  MINIMUM: "minimum",
  SAMPLE: "sample",
  LOG_AVERAGE: "log average",
};
