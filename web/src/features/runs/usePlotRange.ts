import { useState } from "react";
import type { PlotTrace } from "../../components/plotTypes";

/** Ranges of a still plot: all of it, or what was zoomed to, with a history. */
export function usePlotRange(traces: PlotTrace[]) {
  const [history, setHistory] = useState<[number, number][]>([]);
  const whole: [number, number] = traces.length
    ? [
        Math.min(...traces.map((t) => t.startHz)),
        Math.max(...traces.map((t) => t.startHz + (t.level.length - 1) * t.stepHz)),
      ]
    : [0, 1];
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const t of traces) {
    for (let i = 0; i < t.level.length; i++) {
      low = Math.min(low, t.level[i]);
      high = Math.max(high, t.level[i]);
    }
  }
  const yRange: [number, number] = Number.isFinite(low)
    ? [Math.floor(low / 5) * 5 - 5, Math.ceil(high / 5) * 5 + 5]
    : [0, 1];
  return {
    xRange: history[history.length - 1] ?? whole,
    yRange,
    onZoom: (a: number, b: number) => setHistory((h) => [...h, [a, b]]),
    onZoomBack: () => setHistory((h) => h.slice(0, -1)),
  };
}
