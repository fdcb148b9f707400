import type { HopSettings } from "../../api/client";
import { numberCommand } from "../modulation/recordCommands";
import { HopSentence } from "./HopSentence";
import type { TimeMeasurement } from "./kinds";

/** Who hops over which channels. */
export const HOPS: TimeMeasurement<HopSettings> = {
  kind: "hops",
  command: { name: "hops", hint: "who hops over which channels" },
  tiles: {
    count: 4,
    tiles: [
      { what: "look", view: "matrix" },
      { what: "table:channels", view: "table" },
      { what: "counts", view: "curve" },
      { what: "table:hops", view: "table" },
      { what: "levels", view: "curve" },
    ],
  },
  Sentence: HopSentence,
  commands: (change) => [
    numberCommand("span", "width that is looked at", "Hz", (spanHz) => change({ spanHz }), {
      whole: 0,
    }),
    numberCommand("apart", "from channel to channel", "Hz", (channelHz) => change({ channelHz })),
    numberCommand("channel 1", "its middle, or found", "Hz", (firstHz) => change({ firstHz }), {
      found: 0,
    }),
    numberCommand("channels", "that there are, or found", "", (channels) => change({ channels }), {
      found: 0,
    }),
    numberCommand("shortest hop", "shorter ones do not count", "s", (leastSeconds) =>
      change({ leastSeconds }),
    ),
    numberCommand(
      "threshold",
      "over noise, or found",
      "dB",
      (v) => change({ overNoiseDb: v === 0 ? null : v }),
      { found: 0 },
    ),
  ],
};
