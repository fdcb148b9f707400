import type { ListenSettings } from "../../api/client";
import type { RecordsModel } from "../modulation/useRecords";

export const MODES: Record<string, string> = {
  fm: "FM",
  am: "AM",
  usb: "upper side band",
  lsb: "lower side band",
};

export const SQUELCHES: Record<string, string> = {
  none: "open",
  level: "above a level of",
  quieting: "by quieting of",
  tone: "by a tone of",
};

/** A good first value for what opens a squelch. */
const FIRST: Record<string, number> = { none: 0, level: -100, quieting: 10, tone: 123 };

/** What changes with what opens it. */
export const squelchBy = (by: string): Partial<ListenSettings> => ({
  squelchBy: by,
  squelch: FIRST[by] ?? 0,
});

/** Where the sound of a desk comes from as it is received; null where that is not so. */
export function laneOf(model: RecordsModel<ListenSettings>) {
  const goesOn = model.frame?.outcome.readings.some((r) => r.id === "seen") ?? false;
  return goesOn && model.state?.phase === "RUNNING" ? model.store : null;
}
