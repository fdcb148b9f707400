import type { AnalogSettings } from "../../api/client";
import { useCommands } from "../../app/commands";
import { actCommand, commonCommands, numberCommand, pickCommand } from "./recordCommands";
import type { RecordsModel } from "./useRecords";

const MODULATIONS = { am: "AM", fm: "FM", pm: "PM" };

/** Everything that can be typed on the desk of AM, FM and PM. */
export function useAnalogCommands(
  model: RecordsModel<AnalogSettings>,
  actions: {
    toggle: () => unknown;
    open: () => unknown;
    data: () => unknown;
    packets: () => unknown;
  },
) {
  const { change } = model;
  useCommands([
    pickCommand("modulation", "am, fm or pm", MODULATIONS, (modulation) =>
      change({ modulation, highestAmount: null }),
    ),
    numberCommand("centre", "where the carrier is", "Hz", (centreHz) => change({ centreHz }), {
      middle: 0,
    }),
    numberCommand("channel", "band that is looked at", "Hz", (bandHz) => change({ bandHz })),
    numberCommand("length", "of the result", "s", (seconds) => change({ seconds })),
    numberCommand("audio from", "high pass", "Hz", (audioLowHz) => change({ audioLowHz }), {
      all: 0,
    }),
    numberCommand("audio to", "low pass", "Hz", (audioHighHz) => change({ audioHighHz }), {
      all: 0,
    }),
    numberCommand("de-emphasis", "time constant", "s", (deEmphasisSeconds) =>
      change({ deEmphasisSeconds }),
    ),
    numberCommand("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      change({ referenceLevelDbm }),
    ),
    actCommand("weighting", "psophometric or flat", () =>
      change((now) => ({ weighted: !now.weighted })),
    ),
    actCommand("carrier with data", "measure data instead", actions.data),
    actCommand("packets", "measure OFDM packets instead", actions.packets),
    ...commonCommands(model, actions),
  ]);
}
