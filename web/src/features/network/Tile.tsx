import { Select } from "@mantine/core";
import { memo, type ReactNode, useRef } from "react";
import { axisOf } from "../../components/cursor";
import { Plot } from "../../components/Plot";
import type { PlotCurve } from "../../components/plotTypes";
import { ComplexPlane } from "../../desk/ComplexPlane";
import type { Zooms } from "../../desk/SeriesPlot";
import { TileFrame } from "../../desk/TileGrid";
import type { TileDesk } from "../../desk/tiles";
import {
  axisFor,
  type ChartMarker,
  FORMATS,
  formatsFor,
  isChart,
  scaleOf,
  unitOf,
  type View,
  valueAt,
  whatOf,
} from "./panes";
import { StabilityCircles } from "./StabilityCircles";
import { type NetworkModel, useShown } from "./useNetworks";

/** The axis of all views but distance. */
const FREQUENCY = axisOf("Frequency", "Hz");

interface Props {
  model: NetworkModel;
  pane: number;
  markers: ChartMarker[];
  zooms: Zooms;
  onPlace: (hertz: number) => void;
}

/** What a view shows; apart from the plot, which changes with every sweep. */
const TileHead = memo(function TileHead(props: {
  pane: number;
  view: View;
  ports: number;
  balanced: boolean;
  setTile: TileDesk["setTile"];
}) {
  const { pane, view, ports, balanced, setTile } = props;
  const parameters: string[] = [];
  for (let r = 1; r <= Math.min(ports, 9); r++) {
    for (let c = 1; c <= Math.min(ports, 9); c++) {
      parameters.push(`S${r}${c}`);
    }
  }
  const set = (part: Partial<View>) => {
    const next = { ...view, ...part };
    const suits = formatsFor(next.row, next.column).includes(next.format);
    setTile(pane, {
      what: whatOf(next.row, next.column),
      view: suits ? next.format : "LOG_MAGNITUDE",
    });
  };
  const name = `S${view.row}${view.column}`;
  // Rows of balanced ports: differential 1 and 2, common 1 and 2.
  const modes = ["d1", "d2", "c1", "c2"];
  const shownName = (p: string) => {
    const [a, b] = [modes[Number(p[1]) - 1], modes[Number(p[2]) - 1]];
    return balanced && a && b ? `S${a[0]}${b[0]}${a[1]}${b[1]}` : p;
  };
  return (
    <>
      <Select
        aria-label={`Parameter of tile ${pane + 1}`}
        size="xs"
        w={72}
        allowDeselect={false}
        data={(parameters.includes(name) ? parameters : [name, ...parameters]).map((p) => ({
          value: p,
          label: shownName(p),
        }))}
        value={name}
        onChange={(v) => v && set({ row: Number(v[1]), column: Number(v[2]) })}
      />
      <Select
        aria-label={`Format of tile ${pane + 1}`}
        size="xs"
        w={150}
        allowDeselect={false}
        data={formatsFor(view.row, view.column).map((value) => ({
          value,
          label: FORMATS[value],
        }))}
        value={view.format}
        onChange={(format) => format && set({ format })}
      />
    </>
  );
});

const GRIDS: Record<string, "impedance" | "admittance" | "polar"> = {
  SMITH: "impedance",
  ADMITTANCE: "admittance",
  POLAR: "polar",
};

/** One view of what is shown: a plot over frequency, or a chart. */
export function Tile({ model, pane, markers, zooms, onPlace }: Props) {
  const view = model.views[pane];
  const networks = useShown(model).filter((n) => n.curves[pane]);
  const ports = Math.max(1, ...networks.map((n) => n.ports));
  const head = (
    <TileHead
      pane={pane}
      view={view}
      ports={ports}
      balanced={model.setting.balanced !== ""}
      setTile={model.desk.setTile}
    />
  );
  const label = `Tile ${pane + 1}`;
  if (!isChart(view)) {
    return (
      <TileFrame label={label}>
        <OverFrequency
          model={model}
          pane={pane}
          view={view}
          markers={markers}
          zooms={zooms}
          lead={head}
          onPlace={onPlace}
        />
      </TileFrame>
    );
  }
  const port = view.row === view.column ? view.row : 0;
  return (
    <TileFrame label={label} head={head}>
      <ComplexPlane
        title={`S${view.row}${view.column} of ${networks.map((n) => n.name).join(", ")}`}
        axis={FREQUENCY}
        grid={GRIDS[view.format]}
        z0={networks[0]?.z0[0]}
        curves={networks.map((n) => ({
          label: n.name,
          at: n.frequencyHz,
          re: n.curves[pane].re,
          im: n.curves[pane].im,
        }))}
        markers={markers.map((m) => ({ label: m.label, at: m.hertz }))}
        onPlace={onPlace}
      >
        {port > 0 && networks[0] && <StabilityCircles details={networks[0].details} port={port} />}
      </ComplexPlane>
    </TileFrame>
  );
}

/** Ranges of formats of which nothing is drawn yet. */
const EMPTY_RANGE: Record<string, [number, number]> = {
  LOG_MAGNITUDE: [-80, 10],
  RETURN_LOSS: [0, 50],
  VSWR: [1, 5],
  PHASE: [-180, 180],
};

function OverFrequency(props: Props & { view: View; lead: ReactNode }) {
  const { model, pane, view, zooms } = props;
  const networks = useShown(model).filter((n) => n.curves[pane]?.y.length);
  const first = networks[0]?.curves[pane];
  const unit = unitOf(first?.unit ?? "");
  const scale = scaleOf(first?.unit ?? "");
  const curves: PlotCurve[] = networks.map((n, k) => {
    const x: number[] = [];
    const y: number[] = [];
    const values = n.curves[pane].y;
    for (let i = 0; i < values.length; i++) {
      const v = values[i];
      if (v !== null && !Number.isNaN(v)) {
        x.push(n.frequencyHz[i]);
        y.push(v * scale);
      }
    }
    return { label: n.name, x, y, colour: k % 5 };
  });
  const all = curves.flatMap((c) => [c.x[0], c.x[c.x.length - 1]]).filter(Number.isFinite);
  // Nothing yet: the axes that are set.
  const sweep = model.live ? model.analyzer.sweep : undefined;
  const set: [number, number] = sweep ? [sweep.startHz, sweep.stopHz] : [0, 1];
  const whole: [number, number] = all.length ? [Math.min(...all), Math.max(...all)] : set;
  const range = zooms.now ?? whole;
  const values = curves.flatMap((c) =>
    c.y.filter((_, i) => c.x[i] >= range[0] && c.x[i] <= range[1]),
  );
  const drawn =
    view.format === "VSWR"
      ? values.map((v) => Math.min(v, 10))
      : values.map((v) => Math.max(v, -1e6));
  const main = networks[0];
  const limits: PlotCurve[] = model.asks.limits
    .filter((l) => l.row === view.row && l.column === view.column && l.format === view.format)
    .map((l) => ({
      label: l.name || (l.upper ? "at most" : "at least"),
      ...within([l.fromHz, l.toHz], [l.fromValue * scale, l.toValue * scale], range),
      limit: true,
    }))
    .filter((l) => l.x.length > 0);
  if (main?.window && view.row !== view.column && view.format === "LOG_MAGNITUDE") {
    const x = Array.from(main.frequencyHz);
    limits.push({ label: "fixture: lowest to trust", x, y: main.window.lowestDb, limit: true });
    limits.push({ label: "fixture: highest to trust", x, y: main.window.highestDb, limit: true });
  }
  // Limit lines stay in sight whatever the data.
  const inSight = limits
    .filter((l) => l.x[l.x.length - 1] >= range[0] && l.x[0] <= range[1])
    .flatMap((l) => l.y)
    .map((v) => Math.max(v, -150));
  const yRange = useSteady(
    drawn.length || !sweep
      ? axisFor([...drawn, ...inSight])
      : (EMPTY_RANGE[view.format] ?? axisFor(inSight)),
    `${view.row}${view.column}${view.format}${range.join()}`,
  );
  return (
    <Plot
      lead={props.lead}
      title={`S${view.row}${view.column} ${FORMATS[view.format]}`}
      traces={[]}
      curves={[...curves, ...limits]}
      xRange={range}
      yRange={yRange}
      yLabel={`S${view.row}${view.column} ${first?.label.replace(/^S\S+ /, "") ?? ""}${unit ? ` (${unit})` : ""}`}
      yUnit={unit}
      markers={
        main
          ? props.markers.flatMap((m) => {
              const level = valueAt(main, pane, m.hertz);
              return level === null ? [] : [{ ...m, level: level * scale }];
            })
          : []
      }
      spoiled={
        view.row !== view.column
          ? main?.window?.near.map((s) => ({ ...s, why: "too near to the fixture itself" }))
          : undefined
      }
      onZoom={zooms.onZoom}
      onZoomBack={zooms.onZoomBack}
      onPlace={props.onPlace}
      empty={
        networks.length
          ? undefined
          : model.live && model.networks.length === 0
            ? "Nothing is measured yet: press space to sweep."
            : `There is no S${view.row}${view.column}. Choose another.`
      }
    />
  );
}

/**
 * Keeps an axis as it is while what is drawn fits it well: noise must not make it jump from sweep to
 * sweep. Another key begins anew.
 */
function useSteady(wanted: [number, number], key: string): [number, number] {
  const kept = useRef({ key: "", range: wanted });
  const [low, high] = kept.current.range;
  const fits = wanted[0] >= low && wanted[1] <= high && wanted[1] - wanted[0] > 0.6 * (high - low);
  if (kept.current.key !== key || !fits) {
    kept.current = { key, range: wanted };
  }
  return kept.current.range;
}

/** The part of a straight limit that lies in sight, so that its label does too. */
function within(x: [number, number], y: [number, number], range: [number, number]) {
  const [a, b] = [Math.max(x[0], range[0]), Math.min(x[1], range[1])];
  if (a >= b) {
    return { x: [], y: [] };
  }
  const at = (v: number) => y[0] + ((v - x[0]) / (x[1] - x[0])) * (y[1] - y[0]);
  return { x: [a, b], y: [at(a), at(b)] };
}
