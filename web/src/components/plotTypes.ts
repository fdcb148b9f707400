import type { ReactNode } from "react";

/** One curve of a plot on an even grid. */
export interface PlotTrace {
  label: string;
  startHz: number;
  stepHz: number;
  level: ArrayLike<number>;
  /** Index into the trace colours. */
  colour: number;
  dash?: number[];
  width?: number;
  /** Values of single things, not of a curve through them. */
  bars?: boolean;
  /** Offers to take it away. */
  removable?: boolean;
}

export interface PlotMarker {
  label: string;
  hertz: number;
  level: number;
}

/** A level that is judged against, drawn as the vermilion line. */
export interface PlotLimit {
  label: string;
  level: number;
  /** Write the label below the line. */
  below?: boolean;
}

/** A curve with points of its own: a limit line, or what guided work found. */
export interface PlotCurve {
  label: string;
  x: number[];
  y: number[];
  /** A limit is drawn in the accent that belongs to limits. */
  limit?: boolean;
  /** A place, such as the edge of a band, is a broken stroke in ink. */
  edge?: boolean;
  colour?: number;
  /** Draw the points as well. */
  dots?: boolean;
}

export interface PlotProps {
  title: string;
  traces: PlotTrace[];
  curves?: PlotCurve[];
  /** Older looks at the main trace, newest first; drawn fainter and fainter. */
  history?: ArrayLike<number>[];
  /** Bands that must not be trusted. */
  spoiled?: { fromHz: number; toHz: number; why: string }[];
  /** A band that was drawn. */
  band?: [number, number];
  /** Name and unit of the x axis if it is not a frequency. */
  xName?: string;
  xUnit?: string;
  logarithmic?: boolean;
  xRange: [number, number];
  yRange: [number, number];
  yLabel: string;
  yUnit: string;
  markers?: PlotMarker[];
  limits?: PlotLimit[];
  onZoom?: (fromHz: number, toHz: number) => void;
  onZoomBack?: () => void;
  /** A band is drawn with Shift and a drag. */
  onBand?: (from: number, to: number) => unknown;
  /** A click on a place, without a drag. */
  onPlace?: (x: number) => void;
  /** Takes a trace away; not offered for the first one. */
  onRemove?: (trace: number) => void;
  /** Takes a curve away by its label. */
  onRemoveCurve?: (label: string) => void;
  /** What stands first in the head, as the choice of what a tile shows. */
  lead?: ReactNode;
  /** Buttons at the end of the head. */
  actions?: ReactNode;
  /** Shown over the middle of an empty plot. */
  empty?: string;
}

/** Value of a curve, straight between its points; null outside, and where it is broken. */
export function curveAt(curve: PlotCurve, x: number): number | null {
  for (let i = 0; i + 1 < curve.x.length; i++) {
    const [a, b] = [curve.x[i], curve.x[i + 1]];
    if (x >= a && x <= b && b > a) {
      const y = curve.y[i] + ((x - a) / (b - a)) * (curve.y[i + 1] - curve.y[i]);
      return Number.isFinite(y) ? y : null;
    }
  }
  return null;
}

/** The pieces of a curve between the places where it has no value. */
export function unbroken({ x, y }: PlotCurve): { x: number[]; y: number[] }[] {
  if (y.every(Number.isFinite)) {
    return [{ x, y }];
  }
  const pieces: { x: number[]; y: number[] }[] = [];
  let from = 0;
  for (let i = 0; i <= y.length; i++) {
    if (i === y.length || !Number.isFinite(y[i])) {
      i > from && pieces.push({ x: x.slice(from, i), y: y.slice(from, i) });
      from = i + 1;
    }
  }
  return pieces;
}

/** Unit of an axis of times of day: seconds since 1970, written as a clock shows them. */
export const CLOCK = "UTC";

/** Scale and unit that keep the labels of a frequency axis short. */
export function frequencyAxis(range: [number, number]): { scale: number; unit: string } {
  const size = Math.max(Math.abs(range[0]), Math.abs(range[1]));
  if (size >= 1e9) {
    return { scale: 1e9, unit: "GHz" };
  }
  if (size >= 1e6) {
    return { scale: 1e6, unit: "MHz" };
  }
  return size >= 1e3 ? { scale: 1e3, unit: "kHz" } : { scale: 1, unit: "Hz" };
}

/** Scale and unit in which the places of an axis are written. */
export function placeAxis(range: [number, number], unit = "Hz"): { scale: number; unit: string } {
  if (unit === "Hz") {
    return frequencyAxis(range);
  }
  const size = Math.max(Math.abs(range[0]), Math.abs(range[1]));
  if (unit !== "s" || size >= 1) {
    return { scale: 1, unit };
  }
  return size >= 1e-3
    ? { scale: 1e-3, unit: "ms" }
    : size >= 1e-6
      ? { scale: 1e-6, unit: "µs" }
      : { scale: 1e-9, unit: "ns" };
}

/** Level of a trace at a frequency, straight lines between points; null outside. */
export function levelAt(trace: PlotTrace, hertz: number): number | null {
  const x = (hertz - trace.startHz) / trace.stepHz;
  const n = trace.level.length;
  if (x < -1e-6 || x > n - 1 + 1e-6) {
    return null;
  }
  const i = Math.min(Math.max(Math.floor(x), 0), Math.max(n - 2, 0));
  const share = Math.min(Math.max(x - i, 0), 1);
  return n === 1 ? trace.level[0] : trace.level[i] + share * (trace.level[i + 1] - trace.level[i]);
}
