import { type ReactNode, useMemo } from "react";
import type { Outcome, SeriesHead } from "../api/client";
import { type Arrays, matrixOf, partsOf, placesOf, valuesOf } from "../api/frames";
import { axisOf, cursorOf, useCursor } from "../components/cursor";
import { later } from "../components/later";
import { nearest } from "../components/nearest";
import { CLOCK } from "../components/plotTypes";
import { formatClock, formatEngineering, formatHertz, formatMoment } from "../components/units";
import { useDrawnBand } from "./beside";
import classes from "./Desk.module.css";
import { alike, linesLast } from "./outcomes";
import { usePlacing, useSharedZooms } from "./placing";
import { SeriesPlot, useZooms } from "./SeriesPlot";

// Few looks draw these: their code is fetched when one does.
const Matrix = later(async () => (await import("./Matrix")).Matrix);
const ComplexPlane = later(async () => (await import("./ComplexPlane")).ComplexPlane);
const BoardMap = later(async () => (await import("./BoardMap")).BoardMap);

/** An outcome as it is drawn: live with its arrays beside it, kept with them inside. */
export interface Look {
  outcome: Outcome;
  arrays?: Arrays;
  /** Known under this name, as a run is. */
  name?: string;
}

/** Series of the places where the points of another should be. */
const IDEAL = "ideal";

/** What a symbol is worth in each eye. */
const EYES: Record<string, { at: string; part?: "re" | "im" }> = {
  eyeI: { at: "points", part: "re" },
  eyeQ: { at: "points", part: "im" },
  eyeFrequency: { at: "levels" },
};

interface Drawing {
  look: Look;
  series: SeriesHead;
  /** With all series that share its axis. */
  all: boolean;
  lead: ReactNode;
}

/** One way to show a series. */
interface View {
  label: string;
  suits: (s: SeriesHead) => boolean;
  draw: (d: Drawing) => ReactNode;
}

/** A share may be small and matter. */
const SHARE_OF_TIME = "Share of time";

export const isMatrix = (s: SeriesHead) => s.rows !== null;

/** More is up; only time runs down. */
const isUpward = (s: SeriesHead) => s.rows?.quantity !== "Time";
const isComplex = (s: SeriesHead, arrays?: Arrays) =>
  s.re !== null || (arrays?.has(`${s.id}.re`) ?? false);
const wordsAt =
  (unit: string, digits = 4) =>
  (v: number) =>
    unit === "Hz"
      ? formatHertz(v, 6)
      : unit === CLOCK
        ? formatMoment(v)
        : unit
          ? unit.startsWith("dB")
            ? `${Number(v.toPrecision(digits))} ${unit}`.replace("-", "\u2212")
            : formatEngineering(v, unit, digits)
          : String(Number(v.toPrecision(digits))).replace("-", "\u2212");

/** The same in as few digits as an axis has room for. */
const ticksAt = (unit: string) => (v: number) =>
  unit === CLOCK
    ? formatClock(v, 1)
    : unit.startsWith("dB")
      ? `${Math.round(v)} ${unit}`.replace("-", "\u2212")
      : wordsAt(unit, unit ? 3 : 2)(v);

/** Rows of a table of values: as many as can be read, evenly taken. */
const MOST_ROWS = 400;

/** A limit, or what is drawn beside data, that belongs to one series of several, by its name. */
const ofAnother = ({ id, role }: SeriesHead, s: SeriesHead) =>
  id.startsWith("limit.")
    ? !id.startsWith(`limit.${s.id}.`)
    : role === "BESIDE" && id.includes(".") && !id.startsWith(`${s.id}.`);

/** What a series is made of, where that is drawn apart. */
const partsFrom = (look: Look, s: SeriesHead) =>
  look.outcome.series.filter((x) => x.role === "BESIDE" && x.id.startsWith(`${s.id}.`));

function CurveView({ look, series, all, lead }: Drawing) {
  const own = useZooms();
  const axis = axisOf(series.axis.quantity, series.axis.unit);
  const zooms = useSharedZooms(axis) ?? own;
  const place = usePlacing(axis);
  const band = useDrawnBand(series.axis);
  const { outcome, arrays, name } = look;
  const parts = partsFrom(look, series);
  const drawn = linesLast([
    ...(parts.length > 0 ? parts : [series]),
    ...outcome.series.filter(
      (s) =>
        s !== series &&
        !parts.includes(s) &&
        (all || (s.role !== "DATA" && !ofAnother(s, series))) &&
        !isMatrix(s) &&
        alike(s, series),
    ),
  ]);
  // One trace is known by the name of the whole; several are told apart by what they are.
  const several = drawn.filter((s) => s.role === "DATA").length > 1 || parts.length > 0;
  const label = (s: SeriesHead) =>
    s !== series || !name ? s.label : several ? `${name}: ${s.label}` : name;
  const filled = (s: SeriesHead): SeriesHead =>
    arrays
      ? {
          ...s,
          x: arrays.has(`${s.id}.x`) ? Array.from(placesOf(s, arrays)) : s.x,
          y: Array.from(valuesOf(s, arrays)),
        }
      : s;
  return (
    <SeriesPlot
      title={name || series.label || outcome.title}
      lead={lead}
      drawn={drawn.map((s, i) => ({
        series: filled(s),
        label: label(s),
        colour: i % 6,
        width: s === series || parts.includes(s) ? undefined : 1.1,
      }))}
      zooms={zooms}
      spoiled={outcome.spoiled}
      onPlace={place}
      band={band?.band ?? undefined}
      onBand={band && ((low, high) => band.draw([low, high]))}
    />
  );
}

function PlaneView(props: Drawing & { grid: "polar" | "impedance" | "points" }) {
  const { look, series, grid } = props;
  const ideal = grid === "points" && look.outcome.series.find((s) => s.id === IDEAL);
  const apart = grid === "points" ? partsFrom(look, series) : [];
  return (
    <ComplexPlane
      places={ideal ? partsOf(ideal, look.arrays) : undefined}
      title={series.label}
      axis={axisOf(series.axis.quantity, series.axis.unit)}
      grid={grid}
      curves={(apart.length > 0 ? apart : [series]).map((s) => ({
        label: s.label,
        at: placesOf(s, look.arrays),
        ...partsOf(s, look.arrays),
      }))}
    />
  );
}

/** The symbol at the cursor, at its place in an eye: its way where that is shown, and its instant. */
function useSymbolOver(look: Look, series: SeriesHead) {
  const symbol = useCursor(axisOf("Symbol", ""));
  const of = EYES[series.id];
  const { axis, rows } = series;
  const at = look.outcome.series.find((s) => s.id === of?.at);
  if (symbol === null || !at || !rows) {
    return undefined;
  }
  const pick = (s: SeriesHead) =>
    of.part ? partsOf(s, look.arrays)[of.part] : valuesOf(s, look.arrays);
  const k = Math.round(symbol);
  const height = rows.step * rows.points;
  const up = (y: number) => (y - rows.start + rows.step / 2) / height;
  const down = (y: number) => (isUpward(series) ? 1 - up(y) : up(y));
  const across = (x: number) => (x - axis.start) / (axis.step * (axis.points - 1));
  const value = pick(at)[k];
  if (value === undefined) {
    return undefined;
  }
  const path = look.outcome.series.find((s) => s.id === "path");
  const way: [number, number][] = [];
  if (path && of.part) {
    const values = pick(path);
    const per = Math.round(1 / path.axis.step);
    for (let i = Math.max(0, (k - 1) * per); i <= (k + 1) * per && i < values.length; i++) {
      way.push([across(i / per - k), down(values[i])]);
    }
  }
  return { way, place: [across(0), down(value)] as [number, number] };
}

function MatrixView({ look, series }: Drawing) {
  const { axis, rows } = series;
  const over = useSymbolOver(look, series);
  const upward = isUpward(series);
  const { all, range } = useMemo(() => {
    const found = matrixOf(series, look.arrays);
    if (upward) {
      found.reverse();
    }
    return { all: found, range: rangeOf(found, series.quantity === SHARE_OF_TIME) };
  }, [series, look.arrays, upward]);
  const start = rows?.start ?? 0;
  const end = start + (rows?.step ?? 0) * Math.max(0, (rows?.points ?? 1) - 1);
  return (
    <Matrix
      title={series.label}
      rows={all}
      across={[axis.start, axis.start + axis.step * (axis.points - 1)]}
      axis={axisOf(axis.quantity, axis.unit)}
      range={range}
      decades={series.quantity === SHARE_OF_TIME}
      unit={series.unit}
      acrossWords={wordsAt(axis.unit)}
      down={{
        ends: upward ? [end, start] : [start, end],
        words: wordsAt(rows?.unit ?? ""),
        ticks: ticksAt(rows?.unit ?? ""),
      }}
      over={over}
    />
  );
}

/** Of a range that few values reach down to, this share is left out. */
const RARELY = 0.02;

/**
 * Ends of the shades: of shares the smallest and the largest that there are, else without the few
 * that lie far below all others.
 */
function rangeOf(rows: Float32Array[], shares: boolean): [number, number] {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  const some: number[] = [];
  const every = Math.max(1, Math.floor((rows.length * (rows[0]?.length ?? 0)) / 4000));
  let count = 0;
  for (const row of rows) {
    for (let i = 0; i < row.length; i++) {
      const v = row[i];
      if (Number.isFinite(v) && (!shares || v > 0)) {
        low = Math.min(low, v);
        high = Math.max(high, v);
        count++ % every === 0 && some.push(v);
      }
    }
  }
  if (count === 0) {
    return [0, 1]; // nothing is there yet
  }
  some.sort((a, b) => a - b);
  const usual = shares || low >= 0 ? low : (some[Math.floor(RARELY * some.length)] ?? low);
  return [Number(usual.toPrecision(3)), Number(high.toPrecision(3))];
}

/** Numbers over numbers; the row at the cursor of all tiles is marked, and a row sets it. */
function ValuesView({ look, series }: Drawing) {
  const axis = axisOf(series.axis.quantity, series.axis.unit);
  const cursor = useCursor(axis);
  const x = placesOf(series, look.arrays);
  const complex = isComplex(series, look.arrays);
  const { re, im } = partsOf(series, look.arrays);
  const y = complex ? re : valuesOf(series, look.arrays);
  const every = Math.max(1, Math.ceil(x.length / MOST_ROWS));
  const shown = Array.from({ length: Math.ceil(x.length / every) }, (_, i) => i * every);
  const here = cursor === null || x.length === 0 ? -1 : nearest(x, cursor);
  const marked = here - (here % every);
  const place = wordsAt(series.axis.unit);
  return (
    <div className={classes.scroll}>
      <table className={`figures ${classes.values}`}>
        <thead>
          <tr>
            <th>{series.axis.quantity}</th>
            <th>
              {series.quantity}
              {series.unit ? ` (${series.unit})` : ""}
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((i) => (
            <tr
              key={x[i]}
              data-marked={here >= 0 && i === marked}
              onMouseEnter={() => cursorOf(axis).set(x[i])}
              onMouseLeave={() => cursorOf(axis).set(null)}
            >
              <td>{place(x[i])}</td>
              <td>
                {complex
                  ? `${re[i].toPrecision(4)} ${im[i] < 0 ? "\u2212" : "+"} j${Math.abs(im[i]).toPrecision(4)}`
                  : Number(y[i].toPrecision(5))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Keys that move the cursor by a symbol, or by a row. */
const SYMBOL_KEYS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  ArrowUp: -2,
  ArrowDown: 2,
};

/** Symbols of one row, by how many characters each has. */
const rowOf = (characters: number) => (characters < 2 ? 16 : characters < 4 ? 10 : 5);

/** Decided symbols in rows, as hexadecimal numbers or as bits; those with wrong bits are marked. */
function SymbolsView({ look, series, base }: Drawing & { base: 2 | 16 }) {
  const axis = axisOf(series.axis.quantity, series.axis.unit);
  const cursor = useCursor(axis);
  const values = Array.from(valuesOf(series, look.arrays));
  const wrongBits = look.outcome.series.find((s) => s.id === "wrongBits");
  const wrong = wrongBits ? valuesOf(wrongBits, look.arrays) : [];
  const here = cursor === null ? -1 : Math.round(cursor);
  const most = values.reduce((a, b) => Math.max(a, b), 1);
  const characters = Math.ceil(Math.log2(most + 1) / Math.log2(base) - 1e-9);
  return (
    <div
      role="slider"
      aria-label={series.label}
      aria-valuemin={0}
      aria-valuemax={values.length - 1}
      aria-valuenow={Math.max(0, here)}
      tabIndex={0}
      className={`figures ${classes.symbols}`}
      onKeyDown={(e) => {
        const step = SYMBOL_KEYS[e.key];
        if (step !== undefined) {
          e.preventDefault();
          const row = Math.abs(step) > 1 ? rowOf(characters) : 1;
          const next = Math.max(0, here) + (here < 0 ? 0 : Math.sign(step) * row);
          cursorOf(axis).set(Math.min(values.length - 1, Math.max(0, next)));
        }
      }}
      style={{ gridTemplateColumns: `repeat(${rowOf(characters)}, minmax(1ch, auto))` }}
      onMouseMove={(e) => {
        const at = (e.target as HTMLElement).dataset.at;
        at !== undefined && cursorOf(axis).set(Number(at));
      }}
      onMouseLeave={() => cursorOf(axis).set(null)}
    >
      {values.map((v, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a symbol is known by its place
        <span key={i} data-at={i} data-marked={i === here} data-wrong={wrong[i] > 0}>
          {Number.isFinite(v) ? v.toString(base).toUpperCase().padStart(characters, "0") : "\u2014"}
        </span>
      ))}
    </div>
  );
}

/** Levels of places on the board that they lie on. */
function BoardView({ look, series }: Drawing) {
  const at = (id: string) => {
    const found = look.outcome.series.find((s) => s.id === id);
    return found ? valuesOf(found, look.arrays) : [];
  };
  const [across, up, levels] = [at("across"), at("up"), valuesOf(series, look.arrays)];
  const names = look.outcome.tables.find((t) => t.id === "places")?.rows ?? [];
  // States of one board are shaded alike, so that they can lie side by side.
  const known = look.outcome.series
    .filter((s) => alike(s, series))
    .flatMap((s) => Array.from(valuesOf(s, look.arrays)))
    .filter(Number.isFinite);
  return (
    <BoardMap
      title={series.label}
      unit={series.unit}
      range={[Math.min(...known), Math.max(...known)]}
      places={Array.from(levels, (level, i) => ({
        name: names[i]?.cells[0].text ?? "",
        across: across[i] ?? 0,
        up: up[i] ?? 0,
        level,
      }))}
    />
  );
}

/** Ways to show a series; every area has these and no others. */
export const VIEWS: Record<string, View> = {
  board: {
    label: "board",
    suits: (s) => s.axis.quantity === "Place" && s.quantity === "Level",
    draw: (d) => <BoardView {...d} />,
  },
  curve: {
    label: "curve",
    suits: (s) => !isMatrix(s),
    draw: (d) => <CurveView {...d} />,
  },
  chart: {
    label: "Smith chart",
    suits: (s) => s.quantity === "Reflection",
    draw: (d) => <PlaneView {...d} grid="impedance" />,
  },
  plane: {
    label: "complex plane",
    suits: () => true,
    draw: (d) => <PlaneView {...d} grid="polar" />,
  },
  points: {
    label: "points",
    suits: () => true,
    draw: (d) => <PlaneView {...d} grid="points" />,
  },
  matrix: { label: "shades", suits: isMatrix, draw: (d) => <MatrixView {...d} /> },
  values: {
    label: "numbers",
    suits: (s) => !isMatrix(s),
    draw: (d) => <ValuesView {...d} />,
  },
  symbols: {
    label: "symbols",
    suits: (s) => s.axis.quantity === "Symbol" && s.quantity === "Value",
    draw: (d) => <SymbolsView {...d} base={16} />,
  },
  bits: {
    label: "bits",
    suits: (s) => s.axis.quantity === "Symbol" && s.quantity === "Value",
    draw: (d) => <SymbolsView {...d} base={2} />,
  },
};

/** Views that only complex values can be shown in, and the one that they cannot. */
const OF_COMPLEX = new Set(["chart", "plane", "points"]);

/** Keys of the views that suit a series, the best first. */
export function viewsOf(s: SeriesHead, arrays?: Arrays): string[] {
  const complex = isComplex(s, arrays);
  return Object.keys(VIEWS).filter(
    (key) => VIEWS[key].suits(s) && (complex ? key !== "curve" : !OF_COMPLEX.has(key)),
  );
}
