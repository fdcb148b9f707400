import type { DensitySettings } from "../../api/client";
import { numberCommand } from "../modulation/recordCommands";
import { DensitySentence } from "./DensitySentence";
import type { TimeMeasurement } from "./kinds";
import { spectraCommands } from "./spectraCommands";

/** How often each frequency has which level, and when. */
export const DENSITY: TimeMeasurement<DensitySettings> = {
  kind: "density",
  command: { name: "density", hint: "how often which level, and its history" },
  tiles: {
    count: 4,
    tiles: [
      { what: "density", view: "matrix" },
      { what: "all", view: "curve" },
      { what: "history", view: "matrix" },
      { what: "table:there", view: "table" },
      { what: "table:sure", view: "table" },
    ],
  },
  Sentence: DensitySentence,
  commands: (change) => [
    ...spectraCommands(change),
    numberCommand(
      "decay",
      "what is long ago counts less",
      "s",
      (v) => change({ decaySeconds: v }),
      {
        none: 0,
      },
    ),
  ],
};
