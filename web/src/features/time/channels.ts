import type { ChannelSettings } from "../../api/client";
import { numberCommand } from "../modulation/recordCommands";
import { ChannelSentence } from "./ChannelSentence";
import type { TimeMeasurement } from "./kinds";

/** A station and its neighbours on a scale of channels. */
export const CHANNELS: TimeMeasurement<ChannelSettings> = {
  kind: "channels",
  command: { name: "channels", hint: "a station and its neighbours" },
  tiles: {
    count: 4,
    tiles: [
      { what: "all", view: "curve" },
      { what: "look", view: "matrix" },
      { what: "table:channels", view: "table" },
      { what: "share", view: "curve" },
    ],
  },
  Sentence: ChannelSentence,
  commands: (change) => [
    numberCommand("span", "width that is looked at", "Hz", (spanHz) => change({ spanHz }), {
      whole: 0,
    }),
    numberCommand("apart", "from channel to channel", "Hz", (channelHz) => change({ channelHz })),
    numberCommand("power in", "width of each channel", "Hz", (bandHz) => change({ bandHz }), {
      auto: 0,
    }),
    numberCommand("channel 1", "its middle, or own", "Hz", (firstHz) => change({ firstHz }), {
      own: 0,
    }),
    numberCommand(
      "threshold",
      "over noise, or found",
      "dB",
      (v) => change({ overNoiseDb: v === 0 ? null : v }),
      { found: 0 },
    ),
    numberCommand(
      "neighbours",
      "at most, of the own one",
      "dB",
      (v) => change({ mostNeighbourDb: v === 0 ? null : v }),
      { any: 0 },
    ),
  ],
  onBand: (change, [low, high]) => change({ centreHz: (low + high) / 2 }),
};
