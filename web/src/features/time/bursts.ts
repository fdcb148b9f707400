import type { BurstSettings } from "../../api/client";
import { numberCommand } from "../modulation/recordCommands";
import { BurstSentence } from "./BurstSentence";
import type { TimeMeasurement } from "./kinds";
import { burst } from "./ring";

/** Bursts in a band. */
export const BURSTS: TimeMeasurement<BurstSettings> = {
  kind: "bursts",
  command: { name: "bursts", hint: "a table of bursts instead" },
  tiles: {
    count: 4,
    tiles: [
      { what: "amplitude", view: "curve" },
      { what: "table:bursts", view: "table" },
      { what: "burst", view: "curve" },
      { what: "late", view: "curve" },
    ],
  },
  Sentence: BurstSentence,
  commands: (change, model) => [
    numberCommand("band", "width that is looked at", "Hz", (bandHz) => change({ bandHz })),
    numberCommand(
      "threshold",
      "over noise, or found",
      "dB",
      (v) => change({ overNoiseDb: v === 0 ? null : v }),
      { found: 0 },
    ),
    numberCommand("shortest burst", "shorter ones do not count", "s", (leastSeconds) =>
      change({ leastSeconds }),
    ),
    numberCommand("keep burst", "of the table, as a recording", "", (n) =>
      model.cut(burst(model.frame?.outcome, n)),
    ),
    numberCommand("shortest pause", "shorter ones are in a burst", "s", (pauseSeconds) =>
      change({ pauseSeconds }),
    ),
  ],
};
