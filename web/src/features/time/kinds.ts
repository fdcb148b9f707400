/** What can be measured of things that come and go. */
export type TimeKind = "bursts" | "density";

export const TIME_KINDS: Record<TimeKind, string> = {
  bursts: "Bursts",
  density: "Density and history",
};

export const TIME_KIND_KEY = "rovnik-time-kind";
