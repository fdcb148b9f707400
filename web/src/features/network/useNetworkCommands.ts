import type { Dispatch, SetStateAction } from "react";
import { type Command, useCommands } from "../../app/commands";
import { useKeys } from "../../app/useKeys";
import { nearest } from "../../components/nearest";
import { parseQuantity } from "../../components/units";
import type { Zooms } from "../../desk/SeriesPlot";
import { type ChartMarker, highestOf, nextPeak } from "./panes";
import type { NetworkModel } from "./useNetworks";

const MOST_MARKERS = 8;

/** A command that takes a quantity. */
function quantity(
  name: string,
  unit: string,
  hint: string,
  example: string,
  act: (v: number) => void,
  whole = false,
): Command {
  return {
    name,
    argument: unit ? `<${unit}>` : "<number>",
    hint,
    run: (text) => {
      const v = parseQuantity(text, unit);
      if (v === null) {
        const what = unit === "Hz" ? "a frequency" : "a number";
        return `"${text}" is not ${what}. Write it as ${name} ${example}.`;
      }
      if (whole && !Number.isInteger(v)) {
        return `"${text}" is not a whole number. Write it as ${name} ${example}.`;
      }
      act(v);
      return "";
    },
  };
}

function action(name: string, hint: string, act: () => unknown): Command {
  return {
    name,
    argument: "",
    hint,
    run: () => {
      act();
      return "";
    },
  };
}

/** The keys and the quick entry of the Network screen. */
export function useNetworkCommands(
  model: NetworkModel,
  setMarkers: Dispatch<SetStateAction<ChartMarker[]>>,
  zooms: Zooms,
) {
  const { setting, change, analyzer, live } = model;
  const place = (hertz: number) =>
    setMarkers((all) => {
      let number = 1;
      while (all.some((m) => m.label === String(number))) {
        number++;
      }
      return all.length < MOST_MARKERS ? [...all, { label: String(number), hertz }] : all;
    });
  /** Values of the first view, the best highest: a transmission's level, a reflection's match. */
  const merits = (): { hertz: ArrayLike<number>; merit: number[] } | null => {
    const n = model.networks[0];
    const view = model.views[0];
    const c = n?.curves[0];
    if (!n || !c) {
      return null;
    }
    const sign = view.row === view.column && view.format === "LOG_MAGNITUDE" ? -1 : 1;
    const merit = Array.from(n.frequencyHz, (_, i) =>
      c.y.length ? sign * (c.y[i] ?? Number.NaN) : -Math.hypot(c.re[i], c.im[i]),
    );
    return { hertz: n.frequencyHz, merit };
  };
  const best = () => {
    const m = merits();
    if (m) {
      place(m.hertz[highestOf(m.merit)]);
    }
  };
  /** Moves the newest marker to the next lower peak, from the last one back to the highest. */
  const next = () => {
    const m = merits();
    if (m) {
      setMarkers((all) => {
        const last = all.at(-1);
        const from = last ? m.merit[nearest(m.hertz, last.hertz)] : Number.POSITIVE_INFINITY;
        const hertz = m.hertz[nextPeak(m.merit, from)];
        return last ? [...all.slice(0, -1), { ...last, hertz }] : [{ label: "1", hertz }];
      });
    }
  };
  const distance = () => change({ time: { ...setting.time, on: !setting.time.on } });
  const toggle = () =>
    live && (analyzer.state?.phase === "RUNNING" ? analyzer.hold() : analyzer.start());
  const remember = async () => {
    const id = await analyzer.remember();
    if (id) {
      change({ shown: [...setting.shown, id].slice(-7) });
    }
  };
  useKeys({
    m: best,
    t: distance,
    n: next,
    b: zooms.onZoomBack,
    f: zooms.onZoomForward,
    Escape: zooms.whole,
    " ": toggle,
    k: () => live && analyzer.keep(),
    r: () => live && remember(),
    s: () => live && analyzer.start(true),
  });
  const ofFiles: Command[] = [
    {
      ...quantity("marker", "Hz", "marker in all views", "458.5M", place),
      run: (text) => {
        if (!text) {
          best();
          return "";
        }
        return quantity("marker", "Hz", "", "458.5M", place).run(text);
      },
    },
    quantity("band from", "Hz", "lower edge of the worst values", "430M", (bandFromHz) =>
      change({ bandFromHz }),
    ),
    quantity("band to", "Hz", "upper edge of the worst values", "470M", (bandToHz) =>
      change({ bandToHz }),
    ),
    action("distance", "show or hide the reflection over distance", distance),
    action("candidates", "parts against the limits, or the views again", () =>
      change({ candidates: !setting.candidates }),
    ),
    action("limits", "edit the limits and bands of the job", () => model.setDialog("limits")),
    action("clear", "take markers away, whole band", () => {
      setMarkers([]);
      zooms.whole();
    }),
    {
      name: "analyzer",
      argument: "<name, or nothing>",
      hint: "show what an analyzer measures, and no file",
      run: (name) => {
        const wanted = name.toLowerCase();
        const found = model.analyzers.filter((a) => a.name.toLowerCase().includes(wanted));
        if (found.length === 0) {
          const names = model.analyzers.map((a) => a.name).join(", ");
          return `There is no analyzer "${name}". ${names ? `Known: ${names}.` : "Connect one at the Bench."}`;
        }
        change({ live: found[0].id, shown: [] });
        return "";
      },
    },
  ];
  const ofAnalyzer: Command[] = [
    quantity("start at", "Hz", "lower end of the sweep", "430M", (startHz) =>
      analyzer.change({ startHz }),
    ),
    quantity("stop at", "Hz", "upper end of the sweep", "490M", (stopHz) =>
      analyzer.change({ stopHz }),
    ),
    quantity(
      "points",
      "",
      "points of the sweep",
      "801",
      (points) => analyzer.change({ points }),
      true,
    ),
    quantity("bandwidth", "Hz", "IF bandwidth", "1k", (bandwidthHz) =>
      analyzer.change({ bandwidthHz }),
    ),
    quantity(
      "average",
      "",
      "sweeps averaged",
      "16",
      (averages) => analyzer.change({ averages }),
      true,
    ),
    quantity("power", "dBm", "power of the ports", "-10", (powerDbm) =>
      analyzer.change({ powerDbm }),
    ),
    action("calibrate", "begin a calibration, go on with one, or verify", () =>
      model.setDialog("calibrate"),
    ),
    action("no dc", "say that no dc reaches a port, or take it back", () =>
      analyzer.setDcChecked(!analyzer.dcChecked),
    ),
    action("remember", "store the sweep to compare with", remember),
    action("single", "one sweep", () => analyzer.start(true)),
    {
      name: "keep",
      argument: "<name>",
      hint: "keep the sweep as a run",
      run: (v) => {
        analyzer.keep(v);
        return "";
      },
    },
  ];
  useCommands(live ? [...ofFiles, ...ofAnalyzer] : ofFiles);
  return { place, remember };
}
