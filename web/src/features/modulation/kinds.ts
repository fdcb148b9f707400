/** What can be measured of a modulated carrier. */
export type Kind = "single-carrier" | "analog";

export const KINDS: Record<Kind, string> = {
  "single-carrier": "Carrier with data",
  analog: "AM, FM, PM",
};

export const KIND_KEY = "rovnik-modulation-kind";
