import type { LiveCut, Outcome } from "../../api/client";

export const TRIGGERS: Record<string, string> = {
  none: "nothing",
  rises: "a rise over",
  falls: "a fall below",
  mask: "a spectrum over a mask",
  external: "an edge at the trigger input",
};

const now = () => `${new Date().toISOString().slice(0, 19).replace("T", " ")} UTC`;

/** The newest seconds of a stream. */
export const newest = (seconds: number): LiveCut => ({ name: now(), fromSeconds: null, seconds });

/** Columns of the table of bursts. */
const START = 0;
const LENGTH = 1;

/** A burst of the table, by its number from 1 on; or why there is none. */
export function burst(outcome: Outcome | undefined, number: number): LiveCut | string {
  const rows = outcome?.tables.find((t) => t.id === "bursts")?.rows ?? [];
  const cells = rows[Math.round(number) - 1]?.cells;
  const from = cells?.[START].value;
  const seconds = cells?.[LENGTH].value;
  return typeof from === "number" && typeof seconds === "number"
    ? { name: `burst ${Math.round(number)}, ${now()}`, fromSeconds: from, seconds }
    : rows.length === 0
      ? "There is no burst yet."
      : `There are bursts 1 to ${rows.length}.`;
}
