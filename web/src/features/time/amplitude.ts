import type { AmplitudeSettings } from "../../api/client";
import { axisOf } from "../../components/cursor";
import { numberCommand, pickCommand } from "../modulation/recordCommands";
import { AmplitudeSentence } from "./AmplitudeSentence";
import { HIGHEST, instantOf } from "./instant";
import type { TimeMeasurement } from "./kinds";
import { WINDOWS } from "./windows";

/** One record over time, and its spectrum at an instant. */
export const AMPLITUDE: TimeMeasurement<AmplitudeSettings> = {
  kind: "amplitude",
  command: { name: "amplitude", hint: "one record over time, and its spectrum at an instant" },
  tiles: {
    count: 4,
    tiles: [
      { what: "amplitude", view: "curve" },
      { what: "spectrum", view: "curve" },
      { what: "near", view: "curve" },
      { what: "frequency", view: "curve" },
      { what: "phase", view: "curve" },
      { what: "table:lines", view: "table" },
    ],
  },
  Sentence: AmplitudeSentence,
  commands: (change) => [
    numberCommand("band", "width that is looked at", "Hz", (bandHz) => change({ bandHz }), {
      whole: 0,
    }),
    numberCommand("instant", "of the spectrum, or highest", "s", (v) => change(instantOf(v)), {
      highest: HIGHEST,
    }),
    numberCommand(
      "stretch",
      "that the spectrum is made of, or auto",
      "s",
      (stretchSeconds) => change({ stretchSeconds }),
      { auto: 0 },
    ),
    pickCommand("window", "Hann, flat-top, ...", WINDOWS, (window) => change({ window })),
  ],
  onBand: (change, [low, high]) => change({ centreHz: (low + high) / 2, bandHz: high - low }),
  onPlace: { axis: axisOf("Time", "s"), take: (change, x) => change(instantOf(Math.max(0, x))) },
};
