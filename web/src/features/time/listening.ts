import type { ListenSettings } from "../../api/client";

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
