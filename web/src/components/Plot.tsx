import { ActionIcon, Menu, useMantineColorScheme } from "@mantine/core";
import { IconDownload } from "@tabler/icons-react";
import { memo, type RefObject, useEffect, useMemo, useRef, useState } from "react";
import uPlot from "uplot";
import classes from "./Plot.module.css";
import { css, drawOver, drawUnder } from "./plotDraw";
import { canvasToPng, download, toCsv, toSvg } from "./plotExport";
import { curveAt, frequencyAxis, levelAt, type PlotProps, type PlotTrace } from "./plotTypes";
import { formatEngineering, formatHertz } from "./units";

/** Levels of all traces on the first one's grid; the grid array is kept while it fits. */
function useAligned(traces: PlotTrace[]): uPlot.AlignedData {
  const grid = useRef<{ key: string; x: Float64Array }>({ key: "", x: new Float64Array() });
  return useMemo(() => {
    const [main, ...others] = traces;
    if (!main) {
      return [[0, 1]] as unknown as uPlot.AlignedData;
    }
    const n = main.level.length;
    const key = `${main.startHz} ${main.stepHz} ${n}`;
    if (grid.current.key !== key) {
      const x = new Float64Array(n);
      for (let i = 0; i < n; i++) {
        x[i] = main.startHz + i * main.stepHz;
      }
      grid.current = { key, x };
    }
    const x = grid.current.x;
    const aligned = others.map((t) =>
      t.startHz === main.startHz && t.stepHz === main.stepHz && t.level.length === n
        ? t.level
        : Array.from(x, (hz) => levelAt(t, hz)),
    );
    return [x, main.level, ...aligned] as unknown as uPlot.AlignedData;
  }, [traces]);
}

function xLabel(props: PlotProps): string {
  const name = props.xName ?? "Frequency";
  if (props.xUnit !== undefined && props.xUnit !== "Hz") {
    return props.xUnit ? `${name} (${props.xUnit})` : name;
  }
  return props.logarithmic ? name : `${name} (${frequencyAxis(props.xRange).unit})`;
}

function xValues(props: PlotProps, splits: (number | null)[]): (string | null)[] {
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
  const scale = (props.xUnit ?? "Hz") === "Hz" ? frequencyAxis(props.xRange).scale : 1;
  const [a, b] = splits as number[];
  const step = splits.length > 1 ? (b - a) / scale : 1;
  const digits = Math.max(0, Math.min(9, -Math.floor(Math.log10(step) + 1e-9)));
  return splits.map((s) => (s === null ? null : (s / scale).toFixed(digits)));
}

function options(
  props: PlotProps,
  live: { current: PlotProps },
  onCursor: (x: number | null) => void,
) {
  const font = `12.5px "Atkinson Hyperlegible Mono", monospace`;
  const labelFont = `600 13px "Atkinson Hyperlegible Next", sans-serif`;
  const axisLook = { stroke: css("--ink"), font, labelFont, labelSize: 20, labelGap: 2 };
  const grid = { stroke: css("--grid"), width: 1 };
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
        space: 110,
        label: () => xLabel(live.current),
        values: (_u, splits) => xValues(live.current, splits),
      },
      {
        ...axisLook,
        grid,
        ticks: grid,
        size: (_u: uPlot, values: string[] | null) => axisWidth(values),
        space: 26,
        label: () => live.current.yLabel,
        ...(props.yUnit === "V" || props.yUnit === "W"
          ? { values: (_u: uPlot, splits: number[]) => linearValues(splits, props.yUnit) }
          : {}),
      },
    ] as uPlot.Axis[],
    series: [
      {},
      ...props.traces.map((t) => ({
        label: t.label,
        stroke: css(`--trace-${t.colour}`),
        width: t.width ?? 1.4,
        dash: t.dash,
        points: { show: false },
        spanGaps: false,
      })),
    ],
    cursor: {
      points: { show: false },
      drag: { x: Boolean(props.onZoom), y: false, setScale: false },
      bind: {
        dblclick: () => () => {
          live.current.onZoomBack?.();
          return null;
        },
      },
    },
    hooks: {
      ready: [(u) => watchClicks(u, live)],
      drawAxes: [(u) => drawUnder(u, live.current)],
      draw: [(u) => drawOver(u, live.current)],
      setCursor: [
        (u) => {
          const left = u.cursor.left ?? -1;
          onCursor(left >= 0 ? u.posToVal(left, "x") : null);
        },
      ],
      setSelect: [
        (u) => {
          if (u.select.width > 6) {
            const from = u.posToVal(u.select.left, "x");
            const to = u.posToVal(u.select.left + u.select.width, "x");
            live.current.onZoom?.(from, to);
          }
          u.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false);
        },
      ],
    },
  };
  return chosen;
}

/** Room for the longest number of the level axis. */
function axisWidth(values: string[] | null): number {
  const longest = Math.max(4, ...(values ?? []).map((v) => v?.length ?? 0));
  return 18 + 8 * longest;
}

function linearValues(splits: number[], unit: string): string[] {
  return splits.map((s) => formatEngineering(s, unit, 3));
}

/** A press and release in one place is a click; a double click is not two of them. */
function watchClicks(u: uPlot, live: { current: PlotProps }) {
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
}

function cursorText(level: number, unit: string): string {
  return unit === "V" || unit === "W"
    ? formatEngineering(level, unit)
    : `${level.toFixed(1)} ${unit}`;
}

/** What is drawn, as a file; apart from the plot, which changes with every frame. */
const SaveMenu = memo(function SaveMenu(props: {
  live: RefObject<PlotProps>;
  host: RefObject<HTMLDivElement | null>;
  title: string;
}) {
  const { live, host, title } = props;
  const name = title.replace(/[^\w.-]+/g, "_");
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <ActionIcon variant="subtle" size="sm" aria-label={`Save ${title}`} title="Save">
          <IconDownload size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          onClick={async () => {
            const canvas = host.current?.querySelector("canvas");
            const png = canvas && (await canvasToPng(canvas, css("--sheet")));
            if (png) {
              download(`${name}.png`, png);
            }
          }}
        >
          Picture (PNG)
        </Menu.Item>
        <Menu.Item
          onClick={() => download(`${name}.svg`, toSvg(live.current, css), "image/svg+xml")}
        >
          Picture (SVG)
        </Menu.Item>
        <Menu.Item onClick={() => download(`${name}.csv`, toCsv(live.current), "text/csv")}>
          What is drawn (CSV)
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
});

/** The one x-y plot of Rovnik: drag to zoom, double-click back, crosshair, export. */
export function Plot(props: PlotProps) {
  const { colorScheme } = useMantineColorScheme();
  const host = useRef<HTMLDivElement>(null);
  const plot = useRef<uPlot | null>(null);
  const live = useRef(props);
  live.current = props;
  const [cursorHz, setCursorHz] = useState<number | null>(null);
  const data = useAligned(props.traces);
  const latestData = useRef(data);
  latestData.current = data;
  const look = props.traces
    .map((t) => `${t.colour} ${t.dash?.join(",") ?? ""} ${t.width ?? ""}`)
    .join("|")
    .concat(props.logarithmic ? " log" : "", props.yUnit);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new look of the traces or theme needs a new plot
  useEffect(() => {
    const element = host.current;
    if (!element) {
      return;
    }
    const made = new uPlot(options(live.current, live, setCursorHz), latestData.current, element);
    plot.current = made;
    const fillRoom = () =>
      made.setSize({ width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(fillRoom);
    observer.observe(element);
    fillRoom();
    return () => {
      observer.disconnect();
      made.destroy();
      plot.current = null;
    };
  }, [look, colorScheme]);

  const drawn = JSON.stringify([
    props.xRange,
    props.yRange,
    props.limits,
    props.markers,
    props.spoiled,
    props.curves?.map((c) => [c.label, c.x[0], c.y[0], c.x.length]),
    props.history?.length,
  ]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn stands for all that is drawn besides the data
  useEffect(() => {
    plot.current?.setData(data);
  }, [data, drawn]);

  const main = props.traces[0];
  const curve = props.curves?.find((c) => !c.limit);
  const cursorLevel =
    cursorHz === null
      ? null
      : main
        ? levelAt(main, cursorHz)
        : curve
          ? curveAt(curve, cursorHz)
          : null;
  const inHertz = (props.xUnit ?? "Hz") === "Hz";
  return (
    <div className={classes.frame}>
      <div className={classes.head}>
        {props.traces.map((t, i) => (
          <span className={classes.key} key={`${t.label} ${t.colour}`}>
            <span
              className={classes.swatch}
              style={{
                borderTopColor: `var(--trace-${t.colour})`,
                borderTopStyle: t.dash ? "dashed" : "solid",
              }}
            />
            {t.label}
            {i > 0 && props.onRemove && t.removable && (
              <button
                type="button"
                className={classes.remove}
                aria-label={`Take ${t.label} away`}
                onClick={() => props.onRemove?.(i)}
              >
                {"\u00D7"}
              </button>
            )}
          </span>
        ))}
        {props.curves
          ?.filter((c) => c.label && !c.limit)
          .map((c) => (
            <span className={classes.key} key={c.label}>
              <span
                className={classes.swatch}
                style={{ borderTopColor: `var(--trace-${c.colour ?? 0})` }}
              />
              {c.label}
              {props.onRemoveCurve && (
                <button
                  type="button"
                  className={classes.remove}
                  aria-label={`Take ${c.label} away`}
                  onClick={() => props.onRemoveCurve?.(c.label)}
                >
                  {"\u00D7"}
                </button>
              )}
            </span>
          ))}
        <span className={`figures ${classes.readout}`} data-testid="crosshair">
          {cursorHz !== null &&
            `${inHertz ? formatHertz(cursorHz, 9) : Number(cursorHz.toPrecision(4))}  ${cursorLevel === null ? "" : cursorText(cursorLevel, props.yUnit)}`}
        </span>
        {props.actions}
        <SaveMenu live={live} host={host} title={props.title} />
      </div>
      <div className={classes.body} ref={host} data-testid="plot" />
      {props.empty && <div className={classes.empty}>{props.empty}</div>}
    </div>
  );
}
