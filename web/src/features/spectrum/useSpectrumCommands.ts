import { useCommands } from "../../app/commands";
import { parseQuantity } from "../../components/units";
import { DETECTORS, WINDOWS } from "./choices";
import type { SpectrumModel } from "./useSpectrum";

export type SpectrumAction =
  | "mark"
  | "next"
  | "delta"
  | "pin"
  | "levels"
  | "centre"
  | "markerSpan"
  | "toggle"
  | "clear"
  | "open"
  | "lines"
  | "adviser";

/** Everything that can be typed on the Spectrum screen. */
export function useSpectrumCommands(
  model: SpectrumModel,
  actions: Record<SpectrumAction, () => unknown>,
) {
  const set = (
    name: string,
    hint: string,
    unit: string,
    key: string,
    words?: Record<string, number>,
  ) => ({
    name,
    argument: unit ? `<${unit}>` : "<number>",
    hint,
    run: (text: string) => {
      const value = words?.[text.toLowerCase()] ?? parseQuantity(text, unit);
      return value === null
        ? `"${text}" is not a value for ${name}.`
        : model.change({ [key]: value });
    },
  });
  const pick = (name: string, hint: string, key: string, choices: Record<string, string>) => ({
    name,
    argument: "<name>",
    hint,
    run: (text: string) => {
      const found = Object.entries(choices).find(([, label]) =>
        label.toLowerCase().startsWith(text.toLowerCase()),
      );
      return found && text
        ? model.change({ [key]: found[0] })
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
  const edge = (name: "start" | "stop") => ({
    name: `${name} at`,
    argument: "<Hz>",
    hint: `${name} frequency`,
    run: (text: string) => {
      const value = parseQuantity(text, "Hz");
      const s = model.state?.settings;
      if (value === null || !s) {
        return `"${text}" is not a frequency.`;
      }
      const low = name === "start" ? value : s.centreHz - s.spanHz / 2;
      const high = name === "stop" ? value : s.centreHz + s.spanHz / 2;
      return model.change({ centreHz: (low + high) / 2, spanHz: high - low });
    },
  });
  useCommands([
    set("centre", "centre frequency", "Hz", "centreHz"),
    set("span", "width shown", "Hz", "spanHz"),
    edge("start"),
    edge("stop"),
    set("rbw", "resolution bandwidth, or auto", "Hz", "rbwHz", { auto: 0 }),
    set("reference", "highest level expected", "dBm", "referenceLevelDbm"),
    set("average", "number of averages", "", "averages"),
    set("channel", "width of channel power", "Hz", "channelWidthHz"),
    pick("window", "window function", "window", WINDOWS),
    pick("detector", "how averages are formed", "detector", DETECTORS),
    {
      name: "keep",
      argument: "<name>",
      hint: "keep a run",
      run: (name: string) => model.keep(name),
    },
    act("start or hold", "start, hold, resume", actions.toggle),
    act("marker", "on the highest peak", actions.mark),
    act("next line", "marker to the next lower peak", actions.next),
    act("delta", "delta from the marker", actions.delta),
    act("centre on line", "centre on the marker or highest peak", actions.centre),
    act("pin", "keep the marker as a further one", actions.pin),
    act("level pair", "two levels and their difference", actions.levels),
    act("frame the markers", "view from the reference to the marker", actions.markerSpan),
    act("back", "framing before", model.back),
    act("forward", "framing after", model.forward),
    act("auto frame", "find and frame what is there", () => model.guide({ kind: "auto-frame" })),
    act("whose line", "label every line by what it does", () =>
      model.guide({ kind: "whose-line", stepDb: 10 }),
    ),
    act("lines", "show or hide the table of lines", actions.lines),
    act("resolution", "do two lines stand apart?", actions.adviser),
    set("points", "points of one transform, or auto", "", "fftLength", { auto: 0 }),
    act("clear", "take markers and overlays away", actions.clear),
    act("open recording", "a SigMF pair", actions.open),
  ]);
}
