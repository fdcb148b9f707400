import { useMantineColorScheme } from "@mantine/core";
import { type RefObject, useEffect, useMemo, useRef } from "react";
import uPlot from "uplot";
import { cursorOf } from "./cursor";
import classes from "./Plot.module.css";
import { PlotHead } from "./PlotHead";
import { axisKey, options } from "./plotOptions";
import { levelAt, type PlotProps, type PlotTrace } from "./plotTypes";

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

/** All that is drawn besides the data, in words: another text needs another drawing. */
const besides = (p: PlotProps) =>
  JSON.stringify([
    p.xRange,
    p.yRange,
    p.yLabel,
    p.limits,
    p.markers,
    p.spoiled,
    p.band,
    p.curves?.map((c) => [c.label, c.x[0], c.y[0], c.x.length]),
    p.history?.length,
  ]);

/** The canvas of a plot; another look of the traces or another theme makes it anew. */
function Canvas(props: { live: RefObject<PlotProps>; host: RefObject<HTMLDivElement | null> }) {
  const { live, host } = props;
  const plot = useRef<uPlot | null>(null);
  const data = useAligned(live.current.traces);
  const first = useRef(data);
  useEffect(() => {
    const element = host.current;
    if (!element) {
      return;
    }
    const made = new uPlot(options(live), first.current, element);
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
  }, [live, host]);

  const drawn = besides(live.current);
  const painted = useRef({ data, drawn });
  useEffect(() => {
    if (painted.current.data !== data || painted.current.drawn !== drawn) {
      painted.current = { data, drawn };
      plot.current?.setData(data);
    }
  });

  // The pointer on another tile: the line stands here too, at the same place.
  const axis = axisKey(live.current);
  useEffect(() => {
    const cell = cursorOf(axis);
    return cell.subscribe(() => {
      const u = plot.current;
      const x = cell.get();
      if (u && !u.over.matches(":hover")) {
        const left = x === null ? -10 : u.valToPos(x, "x");
        u.setCursor({ left: left >= 0 && left <= u.over.clientWidth ? left : -10, top: -10 });
      }
    });
  }, [axis]);
  return null;
}

/** The one x-y plot of Rovnik: drag to zoom, double-click back, crosshair, export. */
export function Plot(props: PlotProps) {
  const { colorScheme } = useMantineColorScheme();
  const host = useRef<HTMLDivElement>(null);
  const live = useRef(props);
  live.current = props;
  const look = props.traces
    .map((t) => `${t.colour} ${t.dash?.join(",") ?? ""} ${t.width ?? ""}${t.bars ? " bars" : ""}`)
    .join("|")
    .concat(props.logarithmic ? " log" : "", props.yUnit, colorScheme);
  return (
    <div className={classes.frame}>
      <PlotHead plot={props} live={live} host={host} />
      <div
        className={classes.body}
        ref={host}
        data-testid="plot"
        data-past={props.history?.length}
      />
      <Canvas key={look} live={live} host={host} />
      {props.empty && <div className={classes.empty}>{props.empty}</div>}
    </div>
  );
}
