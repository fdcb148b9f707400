/** Windows of a spectrum, by the names that they are sent with. */
export const WINDOWS: Record<string, string> = {
  rectangular: "rectangular",
  hann: "Hann",
  hamming: "Hamming",
  blackman: "Blackman",
  "blackman-harris": "Blackman-Harris",
  "flat-top": "flat-top",
};
