import { useCommands } from "../../app/commands";
import { FORMATS } from "../modulation/carrierWords";
import { actCommand, numberCommand, pickCommand } from "../modulation/recordCommands";
import type { useLevel } from "./useLevel";
import type { ReceiverModel } from "./useReceiver";
import { WORKS, type Work, worksOf } from "./works";

/** Everything that can be typed in the receiver area. */
export function useReceiverCommands(
  model: ReceiverModel,
  level: ReturnType<typeof useLevel>,
  actions: { toggle: () => unknown; work: (work: Work) => void },
) {
  const { change } = model;
  useCommands([
    numberCommand("level", "at the receiver", "dBm", level.set),
    numberCommand("look", "length of a look", "s", (seconds) => change({ seconds })),
    numberCommand("noise figure", "of its data sheet", "dB", (noiseFigureDb) =>
      change({ noiseFigureDb }),
    ),
    pickCommand("format", "for the theory beside", FORMATS, (format) => change({ format })),
    numberCommand("audio from", "high pass", "Hz", (audioLowHz) => change({ audioLowHz }), {
      all: 0,
    }),
    numberCommand("audio to", "low pass", "Hz", (audioHighHz) => change({ audioHighHz }), {
      all: 0,
    }),
    ...worksOf(model.state?.facts).map((w) =>
      actCommand(w.replace("-", " "), WORKS[w].toLowerCase(), () => actions.work(w)),
    ),
    {
      name: "keep",
      argument: "<name>",
      hint: "keep a run",
      run: (name: string) => model.keep(name),
    },
    actCommand("start or hold", "start, hold, resume", actions.toggle),
  ]);
}
