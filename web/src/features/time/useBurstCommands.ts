import type { BurstSettings } from "../../api/client";
import { useCommands } from "../../app/commands";
import { actCommand, commonCommands, numberCommand } from "../modulation/recordCommands";
import type { RecordsModel } from "../modulation/useRecords";

/** Everything that can be typed on the desk of bursts. */
export function useBurstCommands(
  model: RecordsModel<BurstSettings>,
  actions: { toggle: () => unknown; open: () => unknown; density: () => unknown },
) {
  const { change } = model;
  useCommands([
    numberCommand("centre", "middle of the band", "Hz", (centreHz) => change({ centreHz }), {
      middle: 0,
    }),
    numberCommand("band", "width that is looked at", "Hz", (bandHz) => change({ bandHz })),
    numberCommand("length", "of the result", "s", (seconds) => change({ seconds })),
    numberCommand(
      "threshold",
      "over noise, or found",
      "dB",
      (v) => change({ overNoiseDb: v === 0 ? null : v }),
      { found: 0 },
    ),
    numberCommand("shortest burst", "shorter ones do not count", "s", (leastSeconds) =>
      change({ leastSeconds }),
    ),
    numberCommand("shortest pause", "shorter ones are in a burst", "s", (pauseSeconds) =>
      change({ pauseSeconds }),
    ),
    numberCommand("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      change({ referenceLevelDbm }),
    ),
    actCommand("density", "how often which level, and its history", actions.density),
    ...commonCommands(model, actions),
  ]);
}
