import type { Tiles, TriggerSettings } from "../../api/client";
import { numberCommand, pickCommand, typedCommand } from "../modulation/recordCommands";
import type { TimeMeasurement } from "./kinds";
import { newest, TRIGGERS } from "./ring";
import { TriggerSentence } from "./TriggerSentence";
import {
  BROKEN,
  intervalsChange,
  maskChange,
  NO_INTERVALS,
  readIntervals,
  readMask,
} from "./waits";

/** A mask is seen with what is held against it. */
const MASK_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "spectrum", view: "curve" },
    { what: "level", view: "curve" },
    { what: "table:triggers", view: "table" },
    { what: "trigger", view: "curve" },
  ],
};

/** Waits for the power to cross a level, and keeps what is around it. */
export const TRIGGER: TimeMeasurement<TriggerSettings> = {
  kind: "trigger",
  command: { name: "trigger", hint: "wait for a level, record without gaps" },
  tiles: {
    count: 4,
    tiles: [
      { what: "level", view: "curve" },
      { what: "trigger", view: "curve" },
      { what: "table:triggers", view: "table" },
      { what: "table:recordings", view: "table" },
    ],
  },
  tilesFor: ({ triggerBy }) =>
    triggerBy === "mask" ? { name: "mask", tiles: MASK_TILES } : undefined,
  Sentence: TriggerSentence,
  commands: (change, model) => [
    numberCommand(
      "band",
      "whose power is watched, or whole",
      "Hz",
      (bandHz) => change({ bandHz }),
      { whole: 0 },
    ),
    pickCommand("wait for", "a rise, a fall, a mask, an edge, nothing", TRIGGERS, (triggerBy) =>
      change({ triggerBy }),
    ),
    numberCommand("level", "that is crossed", "dBm", (levelDb) => change({ levelDb })),
    typedCommand("mask", "<Hz level, ...>", "points, or flat", readMask, (mask) =>
      change({ triggerBy: "mask", ...maskChange(mask) }),
    ),
    numberCommand("rbw", "of spectra over a mask", "Hz", (rbwHz) => change({ rbwHz }), { auto: 0 }),
    typedCommand("intervals", "<s, ...>", "from one to the next, or any", readIntervals, (times) =>
      change(intervalsChange(model.state?.settings ?? NO_INTERVALS, times)),
    ),
    numberCommand("within", "an interval may be off by so much", "s", (v) =>
      change({ intervalsWithinSeconds: v }),
    ),
    pickCommand("intervals that", "fit, or are broken", BROKEN, (v) =>
      change({ intervalsBroken: v === "true" }),
    ),
    numberCommand("at least", "it lasts so long", "s", (leastSeconds) => change({ leastSeconds }), {
      any: 0,
    }),
    numberCommand(
      "at most",
      "it lasts so long",
      "s",
      (v) => change({ mostSeconds: v === 0 ? null : v }),
      { any: 0 },
    ),
    numberCommand("pauses", "so short do not end it", "s", (pauseSeconds) =>
      change({ pauseSeconds }),
    ),
    numberCommand("hold-off", "from one to the next", "s", (holdOffSeconds) =>
      change({ holdOffSeconds }),
    ),
    numberCommand("before", "a trigger", "s", (beforeSeconds) => change({ beforeSeconds })),
    numberCommand("after", "a trigger", "s", (afterSeconds) => change({ afterSeconds })),
    numberCommand("keep triggers", "so many become recordings", "", (mostKept) =>
      change({ mostKept: Math.round(mostKept) }),
    ),
    numberCommand("record", "the newest seconds", "s", (seconds) => model.cut(newest(seconds))),
  ],
};
