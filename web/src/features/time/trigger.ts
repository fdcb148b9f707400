import type { TriggerSettings } from "../../api/client";
import { numberCommand, pickCommand } from "../modulation/recordCommands";
import type { TimeMeasurement } from "./kinds";
import { newest, TRIGGERS } from "./ring";
import { TriggerSentence } from "./TriggerSentence";

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
  Sentence: TriggerSentence,
  commands: (change, model) => [
    numberCommand(
      "band",
      "whose power is watched, or whole",
      "Hz",
      (bandHz) => change({ bandHz }),
      { whole: 0 },
    ),
    pickCommand("wait for", "a rise, a fall, nothing", TRIGGERS, (triggerBy) =>
      change({ triggerBy }),
    ),
    numberCommand("level", "that is crossed", "dBm", (levelDb) => change({ levelDb })),
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
