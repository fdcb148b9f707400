/** What can be measured of a modulated carrier. */
export type Kind = "single-carrier" | "analog" | "ofdm";

export const KINDS: Record<Kind, string> = {
  "single-carrier": "Carrier with data",
  analog: "AM, FM, PM",
  ofdm: "OFDM packets",
};

export const KIND_KEY = "rovnik-modulation-kind";

/** Channels of OFDM packets by their width in hertz. */
export const CHANNELS: Record<string, string> = {
  "5000000": "5 MHz",
  "10000000": "10 MHz",
  "20000000": "20 MHz",
};

/** Those in which packets are measured. */
export const WIDE_CHANNELS: Record<string, string> = {
  ...CHANNELS,
  "40000000": "40 MHz",
  "80000000": "80 MHz",
  "160000000": "160 MHz",
  "320000000": "320 MHz",
};
