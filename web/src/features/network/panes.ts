import type { NetworkPane, ShownNetwork, Tile, TwoPortDetail } from "../../api/client";
import { nearest } from "../../components/nearest";
import { formatEngineering, signed } from "../../components/units";

export const FORMATS: Record<string, string> = {
  LOG_MAGNITUDE: "magnitude, dB",
  LINEAR: "magnitude, linear",
  PHASE: "phase",
  UNWRAPPED_PHASE: "phase, unwrapped",
  GROUP_DELAY: "group delay",
  RETURN_LOSS: "return loss",
  VSWR: "VSWR",
  IMPEDANCE: "impedance, magnitude",
  RESISTANCE: "resistance",
  REACTANCE: "reactance",
  REAL: "real part",
  IMAGINARY: "imaginary part",
  SMITH: "Smith chart",
  ADMITTANCE: "Smith chart, admittance",
  POLAR: "polar",
};

/** A frequency that is read in all views. */
export interface ChartMarker {
  label: string;
  hertz: number;
}

/** Formats that only make sense of a reflection. */
const REFLECTIONS = new Set([
  "RETURN_LOSS",
  "VSWR",
  "IMPEDANCE",
  "RESISTANCE",
  "REACTANCE",
  "SMITH",
  "ADMITTANCE",
]);

/** One view on the screen; SMITH, ADMITTANCE and POLAR are all drawn from complex values. */
export interface View {
  row: number;
  column: number;
  format: string;
}

/** A tile shows a parameter by its name; the view is the format. */
export const viewOf = (t: Tile): View => {
  const [, row, column] = /^S(\d+?),?(\d+)$/.exec(t.what) ?? ["", "2", "1"];
  return {
    row: Number(row),
    column: Number(column),
    format: t.view in FORMATS ? t.view : "LOG_MAGNITUDE",
  };
};

/** Ports of ten and more are written apart. */
export const whatOf = (row: number, column: number) =>
  row > 9 || column > 9 ? `S${row},${column}` : `S${row}${column}`;

export const isChart = (v: View) => ["SMITH", "ADMITTANCE", "POLAR"].includes(v.format);

export const paneOf = (v: View): NetworkPane => ({
  row: v.row,
  column: v.column,
  format: isChart(v) ? "COMPLEX" : v.format,
});

/** The formats that one parameter can be shown in. */
export function formatsFor(row: number, column: number): string[] {
  return Object.keys(FORMATS).filter((f) => row === column || !REFLECTIONS.has(f));
}

/** Seconds are drawn in nanoseconds. */
export const scaleOf = (unit: string) => (unit === "s" ? 1e9 : 1);
export const unitOf = (unit: string) => (unit === "s" ? "ns" : unit);

/** Whether a file reaches a frequency; beyond its ends nothing is known. */
export function inside(n: ShownNetwork, hertz: number): boolean {
  const f = n.frequencyHz;
  const slack = f.length > 1 ? (f[f.length - 1] - f[0]) * 1e-9 : 1;
  return hertz >= f[0] - slack && hertz <= f[f.length - 1] + slack;
}

/** Value of a rectangular view at a frequency, with its unit. */
export function valueAt(n: ShownNetwork, pane: number, hertz: number): number | null {
  const c = n.curves[pane];
  const value = c.y.length && inside(n, hertz) ? c.y[nearest(n.frequencyHz, hertz)] : null;
  return value === null || Number.isNaN(value) ? null : value;
}

export function valueWords(value: number | null, unit: string): string {
  if (value === null) {
    return "\u2014";
  }
  if (unit === "dB" || unit === "\u00B0") {
    return `${signed(value, 2)} ${unit}`;
  }
  if (unit === "s" || unit === "\u03A9") {
    return formatEngineering(value, unit);
  }
  return String(Number(value.toPrecision(4)));
}

/** Limits of an axis that hold all values, at round numbers. */
export function axisFor(values: number[], centred = false): [number, number] {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const v of values) {
    if (Number.isFinite(v)) {
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
  }
  if (low > high) {
    return [0, 1];
  }
  const span = Math.max(high - low, Math.abs(high) * 1e-3, 1e-6);
  const step =
    10 ** Math.floor(Math.log10(span)) / (span < 2 * 10 ** Math.floor(Math.log10(span)) ? 5 : 2);
  const from = Math.floor((low - 0.03 * span) / step) * step;
  const to = Math.ceil((high + 0.14 * span) / step) * step;
  return centred ? [-Math.max(-from, to), Math.max(-from, to)] : [from, to];
}

/** What passes both ways alike is a passive part: its stability is no question. */
export const active = (d: TwoPortDetail) => d.stableGainDb === null || d.stableGainDb > 1;

/** Index of the highest value; holes are passed over. */
export function highestOf(values: ArrayLike<number>): number {
  let at = 0;
  for (let i = 0; i < values.length; i++) {
    at = values[i] > values[at] || Number.isNaN(values[at]) ? i : at;
  }
  return at;
}

/** Index of the highest peak below a value; the highest of all if there is none left. */
export function nextPeak(values: ArrayLike<number>, below: number): number {
  let at = -1;
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    const peak = !(values[i - 1] > v) && !(values[i + 1] >= v) && !Number.isNaN(v);
    if (peak && v < below && (at < 0 || v > values[at])) {
      at = i;
    }
  }
  return at < 0 ? highestOf(values) : at;
}
