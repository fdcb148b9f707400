import type { OfdmSettings } from "../../api/client";
import { useCommands } from "../../app/commands";
import { useReadyDescriptions } from "./DescriptionChoice";
import { actCommand, commonCommands, numberCommand, pickCommand } from "./recordCommands";
import { FIRST_TRIGGER } from "./TriggerSentence";
import type { RecordsModel } from "./useRecords";

/** Everything that can be typed on the desk of OFDM packets. */
export function useOfdmCommands(
  model: RecordsModel<OfdmSettings>,
  actions: {
    toggle: () => unknown;
    open: () => unknown;
    data: () => unknown;
    analog: () => unknown;
  },
) {
  const { change } = model;
  const ready = useReadyDescriptions();
  useCommands([
    numberCommand("centre", "middle of the channel", "Hz", (centreHz) => change({ centreHz }), {
      middle: 0,
    }),
    numberCommand("channel", "5 to 320 MHz", "Hz", (channelHz) => change({ channelHz })),
    pickCommand(
      "frames",
      "what they are: told by themselves, or as described",
      { legacy: "themselves", ...Object.fromEntries(ready.map((d) => [d.name, d.name])) },
      (name) => change({ description: ready.find((d) => d.name === name) ?? null }),
    ),
    actCommand("trigger", "read what answers one, or not", () =>
      change((now) => ({ trigger: now.trigger ? null : FIRST_TRIGGER })),
    ),
    numberCommand("length", "that is searched", "s", (seconds) => change({ seconds })),
    numberCommand("packet", "which is shown", "", (packet) => change({ packet })),
    pickCommand(
      "channel from",
      "training, or training and data",
      { training: "training", "training-and-data": "data" },
      (estimate) => change({ estimate }),
    ),
    actCommand("track phase", "by pilots, or not", () =>
      change((now) => ({ trackPhase: !now.trackPhase })),
    ),
    actCommand("track level", "by pilots, or not", () =>
      change((now) => ({ trackLevel: !now.trackLevel })),
    ),
    numberCommand("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      change({ referenceLevelDbm }),
    ),
    actCommand("carrier with data", "measure one carrier instead", actions.data),
    actCommand("analog", "measure AM, FM or PM instead", actions.analog),
    ...commonCommands(model, actions),
  ]);
}
