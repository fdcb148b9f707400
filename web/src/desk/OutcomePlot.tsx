import type { Outcome, SeriesHead } from "../api/client";
import type { Arrays } from "../api/frames";
import { Plot } from "../components/Plot";
import type { PlotMarker } from "../components/plotTypes";
import { alike, curvesOf, mainOf } from "./outcomes";

const least = (v: number[]) => v.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const most = (v: number[]) => v.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);

/** Axis limits at round numbers around values. */
export function roundRange(values: number[]): [number, number] {
  const finite = values.filter(Number.isFinite);
  if (finite.length === 0) {
    return [0, 1];
  }
  const [low, high] = [least(finite), most(finite)];
  const span = Math.max(high - low, Math.abs(high) * 1e-3, 1e-12);
  const step = 10 ** Math.floor(Math.log10(span)) / 5;
  return [
    Math.floor((low - 0.05 * span) / step) * step,
    Math.ceil((high + 0.12 * span) / step) * step,
  ];
}

/** What an outcome of any kind looks like: its main series, and all that shares its axis. */
export function OutcomePlot(props: {
  title: string;
  outcome: Outcome;
  arrays?: Arrays;
  markers?: PlotMarker[];
  also?: SeriesHead[];
}) {
  const { outcome } = props;
  const main = mainOf(outcome);
  if (!main || main.axis.points === 0 || main.re || main.rows) {
    return null;
  }
  const drawn = [...outcome.series, ...(props.also ?? [])].filter((s) => alike(s, main));
  const curves = curvesOf(drawn, props.arrays).filter((c) => c.x.length > 0);
  const data = curves.filter((c, i) => !c.limit || drawn[i].id.startsWith("limit"));
  const xs = data.flatMap((c) => [c.x[0], c.x[c.x.length - 1]]).filter(Number.isFinite);
  const { quantity, unit, logarithmic } = main.axis;
  return (
    <Plot
      title={props.title}
      traces={[]}
      curves={curves}
      logarithmic={logarithmic}
      xRange={[least(xs), most(xs)]}
      yRange={roundRange(data.flatMap((c) => c.y))}
      xName={quantity}
      xUnit={unit}
      yLabel={`${main.quantity}${main.unit ? ` (${main.unit})` : ""}${main.plane ? ` at ${main.plane}` : ""}`}
      yUnit={main.unit}
      markers={props.markers}
      spoiled={outcome.spoiled}
    />
  );
}
