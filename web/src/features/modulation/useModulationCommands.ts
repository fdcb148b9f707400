import { useCommands } from "../../app/commands";
import { parseQuantity } from "../../components/units";
import { FILTERS, FORMATS } from "./carrierWords";
import type { ModulationModel } from "./useModulation";

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]/g, "");

/** The one key whose name begins so, or null. */
function named(choices: Record<string, string>, text: string): string | null {
  const exact = Object.keys(choices).find(
    (key) => plain(key) === plain(text) || plain(choices[key]) === plain(text),
  );
  const near = Object.keys(choices).filter((key) => plain(choices[key]).startsWith(plain(text)));
  return exact ?? (text && near.length === 1 ? near[0] : null);
}

/** Everything that can be typed on the Modulation screen. */
export function useModulationCommands(
  model: ModulationModel,
  actions: { toggle: () => unknown; open: () => unknown },
) {
  const number = (
    name: string,
    hint: string,
    unit: string,
    take: (value: number) => Promise<string>,
    words: Record<string, number> = {},
  ) => ({
    name,
    argument: unit ? `<${unit}>` : "<number>",
    hint,
    run: (text: string) => {
      const value = words[text.toLowerCase()] ?? parseQuantity(text, unit);
      return value === null ? `"${text}" is not a value for ${name}.` : take(value);
    },
  });
  const pick = (name: string, hint: string, key: string, choices: Record<string, string>) => ({
    name,
    argument: "<name>",
    hint,
    run: (text: string) => {
      const found = named(choices, text);
      return found
        ? model.describe({ [key]: found })
        : `Choose one of ${Object.values(choices).join(", ")}.`;
    },
  });
  const act = (name: string, hint: string, run: () => unknown) => ({
    name,
    argument: "",
    hint,
    run: () => {
      run();
      return "";
    },
  });
  useCommands([
    pick("format", "how bits become points", "format", FORMATS),
    pick("filter", "what a symbol looks like", "filter", FILTERS),
    number("rate", "symbols a second", "Hz", (symbolRateHz) => model.describe({ symbolRateHz })),
    number("roll-off", "of the filter", "", (filterParameter) =>
      model.describe({ filterParameter }),
    ),
    number("centre", "where the carrier is", "Hz", (centreHz) => model.change({ centreHz }), {
      anywhere: 0,
    }),
    number("search", "how far from there", "Hz", (searchHz) => model.change({ searchHz }), {
      auto: 0,
    }),
    number("symbols", "length of the result", "", (symbols) => model.change({ symbols }), {
      all: 0,
    }),
    number("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      model.change({ referenceLevelDbm }),
    ),
    number("evm limit", "highest EVM that passes, percent", "", (evmLimitPercent) =>
      model.change({ evmLimitPercent }),
    ),
    {
      name: "keep",
      argument: "<name>",
      hint: "keep a run",
      run: (name: string) => model.keep(name),
    },
    act("trim", "turn the generator until the errors are least", () =>
      model.guide({ kind: "trim", adjustFirst: false }),
    ),
    act("front end", "find the best reference level", () => model.guide({ kind: "front-end" })),
    act("known data", "errors from what was sent, or from decisions", () =>
      model.change((now) => ({ knownData: !now.knownData })),
    ),
    act("start or hold", "start, hold, resume", actions.toggle),
    act("open recording", "a SigMF pair", actions.open),
  ]);
}
