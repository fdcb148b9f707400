import type { NetSettings } from "../../api/client";
import { actCommand, numberCommand } from "../modulation/recordCommands";
import type { TimeMeasurement } from "./kinds";
import { NetSentence } from "./NetSentence";

/** Bursts beside what nets of a board do at the same time. */
export const NETS: TimeMeasurement<NetSettings> = {
  kind: "nets",
  command: { name: "nets", hint: "which net bursts come from" },
  tiles: {
    count: 4,
    tiles: [
      { what: "level-near", view: "curve" },
      { what: "table:ranking", view: "table" },
      { what: "net1-near", view: "curve" },
      { what: "net2-near", view: "curve" },
    ],
  },
  Sentence: NetSentence,
  commands: (change, model) => [
    numberCommand("band", "that bursts are looked for in", "Hz", (bandHz) => change({ bandHz })),
    ...(["net1", "net2"] as const).map((net, i) => ({
      name: `channel ${i + 1}`,
      argument: "<net>",
      hint: "what its probe touches",
      run: (name: string) => change({ [net]: name }),
    })),
    numberCommand("coincident", "within so much of a burst", "s", (coincidentSeconds) =>
      change({ coincidentSeconds }),
    ),
    numberCommand("alike", "lags of one net, within", "s", (togetherSeconds) =>
      change({ togetherSeconds }),
    ),
    numberCommand("rest", "longer ones end an activity", "s", (restSeconds) =>
      change({ restSeconds }),
    ),
    numberCommand("later", "at the oscilloscope, by cables", "s", (laterSeconds) =>
      change({ laterSeconds }),
    ),
    actCommand("new ranking", "begin with no nets", () =>
      change({ ranking: (model.state?.settings.ranking ?? 0) + 1 }),
    ),
  ],
};
