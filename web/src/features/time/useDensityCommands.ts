import type { DensitySettings } from "../../api/client";
import { useCommands } from "../../app/commands";
import {
  actCommand,
  commonCommands,
  numberCommand,
  pickCommand,
} from "../modulation/recordCommands";
import type { RecordsModel } from "../modulation/useRecords";
import { WINDOWS } from "./windows";

/** Everything that can be typed on the desk of density and history. */
export function useDensityCommands(
  model: RecordsModel<DensitySettings>,
  actions: { toggle: () => unknown; open: () => unknown; bursts: () => unknown },
) {
  const { change } = model;
  useCommands([
    numberCommand("centre", "middle of the span", "Hz", (centreHz) => change({ centreHz }), {
      middle: 0,
    }),
    numberCommand("span", "width that is looked at", "Hz", (spanHz) => change({ spanHz }), {
      whole: 0,
    }),
    numberCommand("rbw", "of each spectrum, or auto", "Hz", (rbwHz) => change({ rbwHz }), {
      auto: 0,
    }),
    pickCommand("window", "Hann, flat-top, ...", WINDOWS, (window) => change({ window })),
    numberCommand("overlap", "of windows", "%", (overlapPercent) => change({ overlapPercent })),
    numberCommand("length", "of the result", "s", (seconds) => change({ seconds })),
    numberCommand(
      "decay",
      "what is long ago counts less",
      "s",
      (v) => change({ decaySeconds: v }),
      {
        none: 0,
      },
    ),
    numberCommand("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      change({ referenceLevelDbm }),
    ),
    actCommand("bursts", "a table of bursts instead", actions.bursts),
    ...commonCommands(model, actions),
  ]);
}
