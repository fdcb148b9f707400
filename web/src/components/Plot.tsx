import { ActionIcon, Menu, useMantineColorScheme } from "@mantine/core";
import { IconDownload } from "@tabler/icons-react";
import { useEffect, useMemo, useRef, useState } from "react";
import uPlot from "uplot";
import classes from "./Plot.module.css";
import { canvasToPng, download, toCsv, toSvg } from "./plotExport";
import { frequencyAxis, levelAt, type PlotProps, type PlotTrace } from "./plotTypes";
import { formatHertz } from "./units";

const css = (name: string) =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Levels of all traces on the first one's grid; the grid array is kept while it fits. */
function useAligned(traces: PlotTrace[]): uPlot.AlignedData {
  const grid = useRef<{ key: string; x: Float64Array }>({ key: "", x: new Float64Array() });
  return useMemo(() => {
    const [main, ...others] = traces;
    if (!main) {
      return [[0], [null]] as unknown as uPlot.AlignedData;
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
    const aligned = others.map((t) => Array.from(x, (hz) => levelAt(t, hz)));
    return [x, main.level, ...aligned] as unknown as uPlot.AlignedData;
  }, [traces]);
}

function drawExtras(u: uPlot, props: PlotProps) {
  const { ctx } = u;
  const ratio = devicePixelRatio;
  ctx.save();
  ctx.beginPath();
  ctx.rect(u.bbox.left, u.bbox.top, u.bbox.width, u.bbox.height);
  ctx.clip();
  ctx.font = `600 ${13 * ratio}px "Atkinson Hyperlegible Next", sans-serif`;
  for (const limit of props.limits ?? []) {
    const y = u.valToPos(limit.level, "y", true);
    ctx.strokeStyle = css("--plane");
    ctx.fillStyle = css("--plane");
    ctx.lineWidth = 1.6 * ratio;
    ctx.beginPath();
    ctx.moveTo(u.bbox.left, y);
    ctx.lineTo(u.bbox.left + u.bbox.width, y);
    ctx.stroke();
    ctx.textAlign = "left";
    ctx.fillText(limit.label, u.bbox.left + 8 * ratio, y + (limit.below ? 14 : -5) * ratio);
  }
  ctx.fillStyle = css("--ink");
  ctx.strokeStyle = css("--sheet");
  ctx.textAlign = "center";
  for (const m of props.markers ?? []) {
    const x = u.valToPos(m.hertz, "x", true);
    const y = u.valToPos(m.level, "y", true) - 2 * ratio;
    ctx.beginPath();
    ctx.moveTo(x, y);
    ctx.lineTo(x - 6 * ratio, y - 11 * ratio);
    ctx.lineTo(x + 6 * ratio, y - 11 * ratio);
    ctx.closePath();
    ctx.fill();
    ctx.lineWidth = 3 * ratio;
    const above = Math.max(y - 15 * ratio, u.bbox.top + 12 * ratio);
    ctx.strokeText(m.label, x, above);
    ctx.fillText(m.label, x, above);
  }
  ctx.restore();
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
    padding: [8, 14, 0, 0],
    scales: {
      x: { time: false, range: () => live.current.xRange },
      y: { range: () => live.current.yRange },
    },
    axes: [
      {
        ...axisLook,
        grid,
        ticks: grid,
        size: 34,
        space: 110,
        label: () => `Frequency (${frequencyAxis(live.current.xRange).unit})`,
        values: (_u, splits) => {
          const { scale } = frequencyAxis(live.current.xRange);
          const step = splits.length > 1 ? (splits[1] - splits[0]) / scale : 1;
          const digits = Math.max(0, Math.min(9, -Math.floor(Math.log10(step) + 1e-9)));
          return splits.map((s) => (s / scale).toFixed(digits));
        },
      },
      { ...axisLook, grid, ticks: grid, size: 44, space: 26, label: () => live.current.yLabel },
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
      draw: [(u) => drawExtras(u, live.current)],
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
    .join("|");

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new look of the traces or theme needs a new plot
  useEffect(() => {
    const element = host.current;
    if (!element) {
      return;
    }
    const made = new uPlot(options(live.current, live, setCursorHz), latestData.current, element);
    plot.current = made;
    const fit = () => made.setSize({ width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(fit);
    observer.observe(element);
    fit();
    return () => {
      observer.disconnect();
      made.destroy();
      plot.current = null;
    };
  }, [look, colorScheme]);

  const drawn = `${props.xRange} ${props.yRange} ${JSON.stringify(props.limits)} ${JSON.stringify(props.markers)}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn stands for all that is drawn besides the data
  useEffect(() => {
    plot.current?.setData(data);
  }, [data, drawn]);

  const name = props.title.replace(/[^\w.-]+/g, "_");
  const main = props.traces[0];
  const cursorLevel = main && cursorHz !== null ? levelAt(main, cursorHz) : null;
  return (
    <div className={classes.frame}>
      <div className={classes.head}>
        {props.traces.map((t) => (
          <span className={classes.key} key={`${t.label} ${t.colour}`}>
            <span
              className={classes.swatch}
              style={{
                borderTopColor: `var(--trace-${t.colour})`,
                borderTopStyle: t.dash ? "dashed" : "solid",
              }}
            />
            {t.label}
          </span>
        ))}
        <span className={`figures ${classes.readout}`} data-testid="crosshair">
          {cursorHz !== null &&
            `${formatHertz(cursorHz, 9)}  ${cursorLevel === null ? "" : `${cursorLevel.toFixed(1)} ${props.yUnit}`}`}
        </span>
        <Menu position="bottom-end" withinPortal>
          <Menu.Target>
            <ActionIcon variant="subtle" size="sm" aria-label={`Save ${props.title}`} title="Save">
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
            <Menu.Item onClick={() => download(`${name}.svg`, toSvg(props, css), "image/svg+xml")}>
              Picture (SVG)
            </Menu.Item>
            <Menu.Item onClick={() => download(`${name}.csv`, toCsv(props), "text/csv")}>
              What is drawn (CSV)
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      <div className={classes.body} ref={host} data-testid="plot" />
      {props.empty && <div className={classes.empty}>{props.empty}</div>}
    </div>
  );
}
