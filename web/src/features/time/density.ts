import type { DensitySettings } from "../../api/client";
import { numberCommand, pickCommand } from "../modulation/recordCommands";
import { DensitySentence } from "./DensitySentence";
import type { TimeMeasurement } from "./kinds";
import { WINDOWS } from "./windows";

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
    numberCommand("span", "width that is looked at", "Hz", (spanHz) => change({ spanHz }), {
      whole: 0,
    }),
    numberCommand("rbw", "of each spectrum, or auto", "Hz", (rbwHz) => change({ rbwHz }), {
      auto: 0,
    }),
    pickCommand("window", "Hann, flat-top, ...", WINDOWS, (window) => change({ window })),
    numberCommand("overlap", "of windows", "%", (overlapPercent) => change({ overlapPercent })),
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
