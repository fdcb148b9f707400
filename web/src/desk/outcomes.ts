import type { Fact, Outcome, Peak, SeriesHead } from "../api/client";
import { type Arrays, placesOf, valuesOf } from "../api/frames";
import type { PlotCurve } from "../components/plotTypes";
import { formatEngineering, formatHertz } from "../components/units";

/** Id of the table of lines: frequency, then level. */
export const LINES = "lines";

export const dataOf = (o: Outcome): SeriesHead[] => o.series.filter((s) => s.role === "DATA");

/** The main series of an outcome. */
export const mainOf = (o: Outcome): SeriesHead | undefined => dataOf(o)[0];

/** The lines that an outcome lists, the strongest first. */
export function linesOf(o: Outcome): Peak[] {
  const table = o.tables.find((t) => t.id === LINES);
  return (table?.rows ?? []).map(({ cells: [hertz, level] }) => ({
    frequencyHz: hertz.value ?? 0,
    level: level.value ?? 0,
  }));
}

/** True if there is more to show than a sentence. */
export const hasPicture = (o: Outcome) => o.series.length + o.tables.length > 0;

/** Tables but the one of lines. */
export const tablesOf = (o: Outcome) => o.tables.filter((t) => t.id !== LINES);

/** Series as curves of a plot: limits and edges in the accent, data in turns of colour. */
export function curvesOf(series: SeriesHead[], arrays?: Arrays): PlotCurve[] {
  let colour = 0;
  return series.map((s) => {
    const limit = isLine(s);
    const ranged = s.id.startsWith("range");
    const points = s.axis.points;
    return {
      label: s.label,
      x: Array.from(placesOf(s, arrays)),
      y: Array.from(valuesOf(s, arrays)),
      limit,
      edge: s.role === "EDGE",
      colour: limit || ranged ? 0 : colour++ % 5,
      dots: points <= 60 && !limit,
    };
  });
}

/** Series that can be drawn over the axis of another. */
export function alike(a: SeriesHead, b: SeriesHead): boolean {
  return a.axis.quantity === b.axis.quantity && a.axis.unit === b.axis.unit && a.unit === b.unit;
}

/** A limit or an edge, which is drawn as the line that it is. */
export const isLine = (s: SeriesHead) => s.role === "LIMIT" || s.role === "EDGE";

/** Data first, limits and edges over it. */
export const linesLast = (series: SeriesHead[]) => [
  ...series.filter((s) => s.role === "DATA"),
  ...series.filter((s) => s.role !== "DATA"),
];

/** A fact in words: "RBW 3 kHz". */
export function factWords({ label, value, unit, text }: Fact): string {
  if (value === null) {
    return `${label} ${text}`;
  }
  const number = Number(value.toPrecision(10));
  const said =
    unit === "Hz"
      ? formatHertz(number)
      : ["s", "V", "W"].includes(unit)
        ? formatEngineering(number, unit)
        : `${number}${unit ? ` ${unit}` : ""}`;
  return `${label} ${said}`;
}
