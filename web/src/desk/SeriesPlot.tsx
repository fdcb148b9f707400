import { type ReactNode, useState } from "react";
import type { SeriesHead } from "../api/client";
import { placesOf, valuesOf } from "../api/frames";
import { Plot } from "../components/Plot";
import { CLOCK, type PlotCurve, type PlotTrace } from "../components/plotTypes";
import { isLine } from "./outcomes";

/** A series with the look that tells it from others. */
export interface Drawn {
  series: SeriesHead;
  label: string;
  colour: number;
  dash?: number[];
  width?: number;
}

const even = (s: SeriesHead) => s.x === null && !s.axis.logarithmic;

/** What is counted: between two of them there is nothing. */
const SINGLE = new Set(["Channel", "Place"]);

/** Where there is no value there is a gap, not a line across it. */
const withGaps = (values: ArrayLike<number>): ArrayLike<number> =>
  Array.prototype.some.call(values, Number.isNaN)
    ? (Array.from(values, (v) => (Number.isNaN(v) ? null : v)) as unknown as number[])
    : values;

function traceOf({ series, ...look }: Drawn): PlotTrace {
  const { start, step } = series.axis;
  const bars = SINGLE.has(series.axis.quantity);
  return { ...look, startHz: start, stepHz: step, level: withGaps(valuesOf(series)), bars };
}

function curveOf({ series, label, colour }: Drawn): PlotCurve {
  return {
    label,
    colour,
    x: Array.from(placesOf(series)),
    y: Array.from(valuesOf(series)),
    limit: isLine(series),
    edge: series.role === "EDGE",
    dots: series.role === "DATA" && series.axis.points <= 60,
  };
}

/** The zoomed stretches of a plot, the newest last, and those that one went back from. */
export type Zooms = ReturnType<typeof useZooms>;

export function useZooms() {
  const [stretches, setStretches] = useState<[number, number][]>([]);
  const [ahead, setAhead] = useState<[number, number][]>([]);
  return {
    now: stretches.at(-1),
    onZoom: (a: number, b: number) => {
      setStretches([...stretches, [a, b]]);
      setAhead([]);
    },
    onZoomBack: () => {
      setAhead([...ahead, ...stretches.slice(-1)]);
      setStretches(stretches.slice(0, -1));
    },
    onZoomForward: () => {
      setStretches([...stretches, ...ahead.slice(-1)]);
      setAhead(ahead.slice(0, -1));
    },
    whole: () => setStretches([]),
  };
}

function extent(all: ArrayLike<number>[]): [number, number] {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const values of all) {
    for (let i = 0; i < values.length; i++) {
      if (Number.isFinite(values[i])) {
        low = Math.min(low, values[i]);
        high = Math.max(high, values[i]);
      }
    }
  }
  // A single place has room around it, too.
  return low < high ? [low, high] : low === high ? [low - 0.5, high + 0.5] : [0, 1];
}

/** Bars have half a width beside the first and the last place. */
const around = ([low, high]: [number, number]): [number, number] => [low - 0.5, high + 0.5];

/** A stretch of at least a width around its middle. */
const atLeast = (width: number, [low, high]: [number, number]): [number, number] =>
  high - low < width ? [(low + high - width) / 2, (low + high + width) / 2] : [low, high];

/** Of what is seldom the tail matters: it is drawn as a power of ten. */
const isTail = (s: SeriesHead) => s.axis.quantity === "Above the mean" && s.unit === "%";

const asPower = ({ series, ...look }: Drawn): Drawn => ({
  ...look,
  series: {
    ...series,
    quantity: "Share, power of ten",
    unit: "",
    y: Array.from(valuesOf(series), (v) => (v > 0 ? Math.log10(v / 100) : Number.NaN)),
  },
});

/** Still series of any measurement over one another, all on the axis of the first. */
export function SeriesPlot(props: {
  title: string;
  drawn: Drawn[];
  zooms: Zooms;
  yLabel?: string;
  lead?: ReactNode;
  spoiled?: { fromHz: number; toHz: number; why: string }[];
  onPlace?: (x: number) => unknown;
  band?: [number, number];
  onBand?: (from: number, to: number) => unknown;
}) {
  const { zooms } = props;
  const drawn = props.drawn.map((d) => (isTail(d.series) ? asPower(d) : d));
  const main = drawn[0]?.series;
  if (!main) {
    return null;
  }
  const traces = drawn.filter((d) => even(d.series)).map(traceOf);
  const own = drawn.filter((d) => !even(d.series));
  const curves = own.map(curveOf);
  const ends = [
    ...traces.map((t) => [t.startHz, t.startHz + (t.level.length - 1) * t.stepHz]),
    ...curves.filter((c) => !c.limit).map((c) => c.x),
  ];
  const [low, high] = atLeast(
    main.quantity.endsWith("power of ten") ? 1 : 0,
    extent([
      ...traces.map((t) => t.level),
      ...curves.filter((_, i) => own[i].series.role !== "EDGE").map((c) => c.y),
    ]),
  );
  // What is followed for long moves little: its own spread is what one wants to see.
  const coarse = main.unit.startsWith("dB") && main.axis.unit !== CLOCK;
  const step = coarse ? 5 : 10 ** Math.floor(Math.log10(high - low || 1)) / 2;
  // What is never below 0 needs no room there.
  const least = low >= 0 && !main.unit.startsWith("dB") ? 0 : Number.NEGATIVE_INFINITY;
  // Shares end at all of it.
  const most = main.quantity.startsWith("Share") && high <= 100 ? 105 : Number.POSITIVE_INFINITY;
  const plane = main.plane ? ` at ${main.plane}` : "";
  return (
    <Plot
      title={props.title}
      lead={props.lead}
      traces={traces}
      curves={curves}
      xRange={zooms.now ?? (traces[0]?.bars ? around(extent(ends)) : extent(ends))}
      yRange={[
        Math.max(least, Math.floor(low / step) * step - step),
        Math.min(most, Math.ceil(high / step) * step + step),
      ]}
      xName={main.axis.quantity}
      xUnit={main.axis.unit}
      logarithmic={main.axis.logarithmic}
      yLabel={props.yLabel ?? `${main.quantity}${main.unit ? ` (${main.unit})` : ""}${plane}`}
      yUnit={main.unit}
      spoiled={props.spoiled}
      onZoom={zooms.onZoom}
      onZoomBack={zooms.onZoomBack}
      onPlace={props.onPlace}
      band={props.band}
      onBand={props.onBand}
    />
  );
}
