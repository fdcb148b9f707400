import type { ListenSettings } from "../../api/client";
import { actCommand, numberCommand, pickCommand } from "../modulation/recordCommands";
import { AudioSentence } from "./AudioSentence";
import type { TimeMeasurement } from "./kinds";
import { laneOf, MODES, SQUELCHES, squelchBy } from "./listening";
import { hear, hearOn, silence } from "./sound";

/** A channel is heard, with what a radio's meters would say of it. */
export const AUDIO: TimeMeasurement<ListenSettings> = {
  kind: "audio",
  command: { name: "listen", hint: "hear a channel: AM, FM, one side band" },
  tiles: {
    count: 4,
    tiles: [
      { what: "sound", view: "curve" },
      { what: "audioSpectrum", view: "curve" },
      { what: "level", view: "curve" },
      { what: "table:passages", view: "table" },
      { what: "quieting", view: "curve" },
    ],
  },
  Sentence: AudioSentence,
  commands: (change, model) => [
    pickCommand("mode", "FM, AM, upper or lower side band", MODES, (mode) => change({ mode })),
    numberCommand("channel", "width", "Hz", (bandHz) => change({ bandHz })),
    numberCommand(
      "audio from",
      "lowest that is heard",
      "Hz",
      (audioLowHz) => change({ audioLowHz }),
      {
        all: 0,
      },
    ),
    numberCommand("audio to", "highest", "Hz", (audioHighHz) => change({ audioHighHz }), {
      all: 0,
    }),
    pickCommand("squelch", "what opens it", SQUELCHES, (by) => change(squelchBy(by))),
    numberCommand("squelch level", "opens from here on", "dBm", (squelch) =>
      change({ squelchBy: "level", squelch }),
    ),
    numberCommand("squelch quieting", "opens from here on", "dB", (squelch) =>
      change({ squelchBy: "quieting", squelch }),
    ),
    numberCommand("squelch tone", "of the list", "Hz", (squelch) =>
      change({ squelchBy: "tone", squelch }),
    ),
    actCommand("hear", "what is received, or what is on the screen", () => {
      const lane = laneOf(model);
      return lane ? hearOn(model.url, lane) : hear(model.url).catch(model.setProblem);
    }),
    actCommand("silence", "ends what is heard", silence),
  ],
};
