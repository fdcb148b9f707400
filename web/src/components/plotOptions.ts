import uPlot from "uplot";
import { axisOf, cursorOf } from "./cursor";
import { css, drawOver, drawUnder } from "./plotDraw";
import { CLOCK, type PlotProps, placeAxis } from "./plotTypes";
import { formatClock, formatEngineering, formatHertz, formatMoment, withMinus } from "./units";

/** The axis that this plot shares with others. */
export const axisKey = (p: PlotProps) => axisOf(p.xName ?? "Frequency", p.xUnit ?? "Hz");

function xLabel(props: PlotProps): string {
  const name = props.xName ?? "Frequency";
  if (props.xUnit === CLOCK) {
    const days = props.xRange.map((x) => formatMoment(x).slice(0, 10));
    return `${days[0] === days[1] ? days[0] : days.join(" to ")} (UTC)`;
  }
  const { unit } = placeAxis(props.xRange, props.xUnit);
  return unit && !(props.logarithmic && (props.xUnit ?? "Hz") === "Hz")
    ? `${name} (${unit})`
    : name;
}

function xValues(props: PlotProps, splits: (number | null)[], apart: number): (string | null)[] {
  if (props.logarithmic) {
    // Decades are written, and 2 and 5 between them where there is room; the lines stay.
    const few = Math.log10(props.xRange[1] / props.xRange[0]) < 2.5;
    const written = few ? [1, 2, 5] : [1];
    return splits.map((s) => {
      const mantissa = s === null ? 0 : s / 10 ** Math.floor(Math.log10(s) + 1e-9);
      return s !== null && written.some((w) => Math.abs(mantissa - w) < 1e-6)
        ? formatHertz(s)
        : null;
    });
  }
  const { scale } = placeAxis(props.xRange, props.xUnit);
  if (props.xUnit === CLOCK) {
    return splits.map((s) => (s === null ? null : formatClock(s, apart)));
  }
  const step = apart / scale;
  // As many as it takes to write the step: 2.5 needs one more than 2.
  let digits = 0;
  while (digits < 9 && Math.abs(step * 10 ** digits - Math.round(step * 10 ** digits)) > 1e-6) {
    digits++;
  }
  return splits.map((s) => (s === null ? null : (s / scale).toFixed(digits)));
}

/** Steps that a clock is divided in, seconds. */
const CLOCK_STEPS = [
  1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 10_800, 21_600, 43_200, 86_400,
  172_800, 604_800, 1_209_600, 2_592_000,
];

/** Width of a letter of a label, and what a plot has around the level axis; pixels. */
const LETTER = 6.6;
const AROUND_LABEL = 50;

/** How the plot is drawn; what changes without a new plot is read from {@link live}. */
export function options(live: { current: PlotProps }) {
  const props = live.current;
  const font = `12.5px "Atkinson Hyperlegible Mono", monospace`;
  const labelFont = `600 13px "Atkinson Hyperlegible Next", sans-serif`;
  const axisLook = { stroke: css("--ink"), font, labelFont, labelSize: 20, labelGap: 2 };
  const grid = { stroke: css("--grid"), width: 1 };
  /** The drag that is under way draws a band. */
  let drawing = false;
  const chosen: uPlot.Options = {
    width: 400,
    height: 300,
    legend: { show: false },
    padding: [8, props.logarithmic ? 34 : 14, 0, 0],
    scales: {
      x: {
        time: false,
        distr: props.logarithmic ? 3 : 1,
        range: () => live.current.xRange,
      },
      y: { range: () => live.current.yRange },
    },
    axes: [
      {
        ...axisLook,
        grid,
        ticks: grid,
        size: 34,
        // Places in a time are short words, frequencies are long ones.
        space:
          props.xUnit === CLOCK
            ? (_u: uPlot, _axis: number, from: number, to: number) => (to - from < 900 ? 92 : 60)
            : props.xUnit === "s"
              ? 64
              : 86,
        ...(props.xUnit === CLOCK ? { incrs: CLOCK_STEPS } : {}),
        label: () => xLabel(live.current),
        values: (_u, splits, _axis, _space, step) =>
          xValues(live.current, splits, step).map((s) => (s === null ? null : withMinus(s))),
      },
      {
        ...axisLook,
        grid,
        ticks: grid,
        size: (_u: uPlot, values: string[] | null) => axisWidth(values),
        space: 26,
        // A low plot has room for the quantity, not for its plane.
        label: (u: uPlot) =>
          live.current.yLabel.length * LETTER > u.height - AROUND_LABEL
            ? live.current.yLabel.split(" at ")[0]
            : live.current.yLabel,
        values: (_u: uPlot, splits: (number | null)[]) =>
          (["V", "W", "s", "Hz"].includes(props.yUnit)
            ? linearValues(splits as number[], props.yUnit)
            : splits.map((s) => (s === null ? "" : PLAIN.format(s)))
          ).map(withMinus),
      },
    ] as uPlot.Axis[],
    series: [
      {},
      ...props.traces.map((t) => ({
        label: t.label,
        stroke: css(`--trace-${t.colour}`),
        width: t.width ?? 1.4,
        dash: t.dash,
        ...(t.bars ? BARS(css(`--trace-${t.colour}`)) : {}),
        points: { show: false },
        spanGaps: false,
      })),
    ],
    cursor: {
      points: { show: false },
      drag: { x: Boolean(props.onZoom ?? props.onBand), y: false, setScale: false },
      bind: {
        dblclick: () => () => {
          live.current.onZoomBack?.();
          return null;
        },
      },
    },
    hooks: {
      ready: [
        (u) => watchPointer(u, live),
        (u) =>
          u.over.addEventListener("mousedown", (e) => {
            drawing = e.shiftKey;
          }),
      ],
      drawAxes: [(u) => drawUnder(u, live.current)],
      draw: [(u) => drawOver(u, live.current)],
      setSelect: [
        (u) => {
          if (u.select.width > 6) {
            const from = u.posToVal(u.select.left, "x");
            const to = u.posToVal(u.select.left + u.select.width, "x");
            const { onZoom, onBand } = live.current;
            (drawing && onBand ? onBand : onZoom)?.(from, to);
          }
          u.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false);
        },
      ],
    },
  };
  return chosen;
}

/** Bars from the lower edge on, so that levels in dB have some length, too. */
const BARS = (colour: string) => ({
  fill: `${colour}40`,
  fillTo: (u: uPlot) => u.scales.y.min ?? 0,
  paths: uPlot.paths.bars?.({ size: [0.7] }),
});

const PLAIN = new Intl.NumberFormat("en-US");

/** Room for the longest number of the level axis. */
function axisWidth(values: string[] | null): number {
  const longest = Math.max(4, ...(values ?? []).map((v) => v?.length ?? 0));
  return 18 + 8 * longest;
}

/** As many digits as it takes to tell one from the next. */
function linearValues(splits: number[], unit: string): string[] {
  const step = Math.abs(splits[1] - splits[0]) || 1;
  const largest = Math.max(...splits.map(Math.abs));
  const digits = Math.min(15, Math.max(3, Math.ceil(Math.log10(largest / step + 1e-9)) + 1));
  return splits.map((s) => formatEngineering(s, unit, digits));
}

/**
 * Clicks and the pointer. A press and release in one place is a click; a double click is not two of
 * them. The place of the pointer is told to all tiles with this axis.
 */
function watchPointer(u: uPlot, live: { current: PlotProps }) {
  let downAt = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  u.over.addEventListener("mousedown", (e) => {
    downAt = e.clientX;
  });
  u.over.addEventListener("click", (e) => {
    clearTimeout(timer);
    if (e.detail === 1 && Math.abs(e.clientX - downAt) < 4 && live.current.onPlace) {
      const x = u.posToVal(e.clientX - u.over.getBoundingClientRect().left, "x");
      timer = setTimeout(() => live.current.onPlace?.(x), 250);
    }
  });
  u.over.addEventListener("mousemove", () => {
    const left = u.cursor.left ?? -1;
    cursorOf(axisKey(live.current)).set(left >= 0 ? u.posToVal(left, "x") : null);
  });
  u.over.addEventListener("mouseleave", () => cursorOf(axisKey(live.current)).set(null));
}
