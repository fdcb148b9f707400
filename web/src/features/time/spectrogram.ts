import type { SpectrogramSettings } from "../../api/client";
import { numberCommand } from "../modulation/recordCommands";
import type { TimeMeasurement } from "./kinds";
import { SpectrogramSentence } from "./SpectrogramSentence";
import { spectraCommands } from "./spectraCommands";

/** Level over frequency and time, of however long a recording. */
export const SPECTROGRAM: TimeMeasurement<SpectrogramSettings> = {
  kind: "spectrogram",
  command: { name: "spectrogram", hint: "level over frequency and time, however long" },
  tiles: {
    count: 2,
    tiles: [
      { what: "spectrogram", view: "matrix" },
      { what: "power", view: "curve" },
      { what: "highest", view: "curve" },
      { what: "mean", view: "curve" },
    ],
  },
  Sentence: SpectrogramSentence,
  commands: (change) => [
    ...spectraCommands(change),
    numberCommand("rows", "at most", "", (rows) => change({ rows })),
  ],
};
