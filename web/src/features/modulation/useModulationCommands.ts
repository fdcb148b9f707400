import { useCommands } from "../../app/commands";
import { EQUALIZERS, FILTERS, FORMATS } from "./carrierWords";
import { actCommand, commonCommands, numberCommand, pickCommand } from "./recordCommands";
import type { ModulationModel } from "./useModulation";

/** Everything that can be typed on the desk of carriers with data. */
export function useModulationCommands(
  model: ModulationModel,
  actions: {
    toggle: () => unknown;
    open: () => unknown;
    analog: () => unknown;
    packets: () => unknown;
    whatIsIt: () => unknown;
  },
) {
  const { change, describe } = model;
  useCommands([
    pickCommand("format", "how bits become points", FORMATS, (format) => describe({ format })),
    pickCommand("filter", "what a symbol looks like", FILTERS, (filter) => describe({ filter })),
    numberCommand("rate", "symbols a second", "Hz", (symbolRateHz) => describe({ symbolRateHz })),
    numberCommand("roll-off", "of the filter", "", (filterParameter) =>
      describe({ filterParameter }),
    ),
    numberCommand("deviation", "of the outermost frequency", "Hz", (deviationHz) =>
      describe({ deviationHz }),
    ),
    pickCommand("equalizer", "off, trained or held as it is", EQUALIZERS, model.equalize),
    numberCommand(
      "follow phase",
      "as the mean over so many symbols",
      "",
      (trackSymbols) => change({ trackSymbols }),
      { whole: 0 },
    ),
    numberCommand("centre", "where the carrier is", "Hz", (centreHz) => change({ centreHz }), {
      anywhere: 0,
    }),
    numberCommand("search", "how far from there", "Hz", (searchHz) => change({ searchHz }), {
      auto: 0,
    }),
    numberCommand("symbols", "length of the result", "", (symbols) => change({ symbols }), {
      all: 0,
    }),
    numberCommand("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      change({ referenceLevelDbm }),
    ),
    numberCommand("evm limit", "highest EVM that passes, percent", "", (evmLimitPercent) =>
      change({ evmLimitPercent }),
    ),
    actCommand("what is it", "tell an unknown carrier", actions.whatIsIt),
    actCommand("trim", "turn the generator until the errors are least", () =>
      model.guide({ kind: "trim", adjustFirst: false }),
    ),
    actCommand("front end", "find the best reference level", () =>
      model.guide({ kind: "front-end" }),
    ),
    actCommand("own share", "how much of the errors is the receiver's", () =>
      model.guide({ kind: "own-share", looks: 8, runId: null }),
    ),
    actCommand("known data", "errors from what was sent, or from decisions", () =>
      change((now) => ({ knownData: !now.knownData })),
    ),
    actCommand("analog", "measure AM, FM or PM instead", actions.analog),
    actCommand("packets", "measure OFDM packets instead", actions.packets),
    ...commonCommands(model, actions),
  ]);
}
