import type { ReceiverState } from "../../api/client";

/** Work of several levels. */
export type Work = "sensitivity" | "level-run" | "squelch" | "rejection";

export const WORKS: Record<Work, string> = {
  sensitivity: "Sensitivity",
  "level-run": "Level against quality",
  squelch: "Where the squelch opens and closes",
  rejection: "Rejection of another signal",
};

/** What a receiver can be asked for. */
export const worksOf = (facts: ReceiverState["facts"] | undefined): Work[] =>
  (Object.keys(WORKS) as Work[]).filter((w) => w !== "squelch" || facts?.hasSquelch);

/** Qualities that make a receiver just good enough. */
export const QUALITIES: Record<string, string> = {
  ber: "bit errors",
  per: "packet errors",
  sinad: "SINAD",
};

/** What is common for each. */
export const TARGETS: Record<string, string> = { ber: "1e-3", per: "0.1", sinad: "12" };

export const qualitiesOf = (facts: ReceiverState["facts"] | undefined): string[] =>
  facts?.givesAudio && !facts.countsBits ? ["sinad"] : facts?.packetBits ? ["ber", "per"] : ["ber"];
