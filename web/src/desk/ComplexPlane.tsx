import { type MouseEvent, memo, type ReactNode, useId } from "react";
import { cursorOf, useCursor } from "../components/cursor";
import { nearest } from "../components/nearest";
import classes from "./Desk.module.css";

const RESISTANCES = [0.2, 0.5, 1, 2, 5];
const REACTANCES = [0.2, 0.5, 1, 2, 5];

/** Point of the chart for a normalised impedance: (z - 1) / (z + 1). */
function gamma(r: number, x: number): [number, number] {
  const below = (r + 1) ** 2 + x * x;
  return [(r * r + x * x - 1) / below, (2 * x) / below];
}

/** Curve of constant resistance or reactance as a path, cut where it would leave the chart. */
function gridPath(of: (t: number) => [number, number]): string {
  const points: string[] = [];
  for (let i = 0; i <= 120; i++) {
    const t = Math.tan(((i / 120) * 0.998 - 0.499) * Math.PI);
    const [re, im] = of(t);
    points.push(`${i === 0 ? "M" : "L"}${re.toFixed(4)} ${(-im).toFixed(4)}`);
  }
  return points.join("");
}

const circle = (r: number) => gridPath((x) => gamma(r, x));
const arc = (x: number) => gridPath((t) => gamma(Math.abs(t), x));

/** Complex values in their plane; each belongs to a place on an axis that tiles share. */
export interface PlaneCurve {
  label: string;
  at: ArrayLike<number>;
  re: ArrayLike<number>;
  im: ArrayLike<number>;
}

/** A marker at a place on the axis. */
export interface PlaneMarker {
  label: string;
  at: number;
}

interface Props {
  /** What it shows, for those who cannot see it. */
  title: string;
  curves: PlaneCurve[];
  /** The axis of the places, as other tiles name it. */
  axis: string;
  /** Impedance lines, admittance lines, circles of equal size, or circles around single points. */
  grid: "impedance" | "admittance" | "polar" | "points";
  /** Reference of the lines, ohm. */
  z0?: number;
  markers?: PlaneMarker[];
  /** Where points should be. */
  places?: { re: ArrayLike<number>; im: ArrayLike<number> };
  /** Drawn over the curves. */
  children?: ReactNode;
  onPlace?: (at: number) => void;
}

/** A curve of the plane as a path; points that the eye cannot part are drawn once. */
function pathOf(re: ArrayLike<number>, im: ArrayLike<number>, apart: number): string {
  let d = "";
  let x = Number.NaN;
  let y = Number.NaN;
  for (let i = 0; i < re.length; i++) {
    const near = Math.abs(re[i] - x) < apart && Math.abs(im[i] - y) < apart;
    if (!near || i === re.length - 1) {
      x = re[i];
      y = im[i];
      d += `${i === 0 ? "M" : "L"}${x.toFixed(4)} ${(-y).toFixed(4)}`;
    }
  }
  return d;
}

/** Strokes of no length: with round ends they are dots, far lighter to draw than circles. */
function pointsOf(re: ArrayLike<number>, im: ArrayLike<number>): string {
  let d = "";
  for (let i = 0; i < re.length; i++) {
    d += `M${re[i].toFixed(4)} ${(-im[i]).toFixed(4)}h0`;
  }
  return d;
}

/** Crosses that leave their own middle free; each place once. */
function placesOf(re: ArrayLike<number>, im: ArrayLike<number>, r: number): string {
  const seen = new Set<string>();
  let d = "";
  for (let i = 0; i < re.length; i++) {
    const key = `${re[i].toFixed(3)} ${(-im[i]).toFixed(3)}`;
    if (!seen.has(key)) {
      seen.add(key);
      const [x, y] = [re[i], -im[i]];
      d += `M${x - r} ${y}h${0.6 * r}M${x + 0.4 * r} ${y}h${0.6 * r}`;
      d += `M${x} ${y - r}v${0.6 * r}M${x} ${y + 0.4 * r}v${0.6 * r}`;
    }
  }
  return d;
}

/** Curves with their colours; of points those of the fewest are drawn last, over the others. */
function topmost(curves: PlaneCurve[], grid: Props["grid"]) {
  const all = curves.map((c, k) => ({ c, k }));
  return grid === "points" ? all.sort((a, b) => b.c.re.length - a.c.re.length) : all;
}

const boxOf = (scale: number) => `${-scale} ${-scale} ${2 * scale} ${2 * scale}`;

/** The lines under the curves: a picture of their own, as they stay while sweeps come and go. */
const ChartGrid = memo(function ChartGrid(props: {
  grid: Props["grid"];
  scale: number;
  /** Lines are labelled in ohm, or in millisiemens, of the reference that the file is shown in. */
  z0: number;
}) {
  const { grid, scale, z0 } = props;
  const thin = 0.004 * scale;
  return (
    <svg className={classes.planeUnder} viewBox={boxOf(scale)} aria-hidden="true">
      <g className={classes.planeGrid} strokeWidth={thin} fill="none">
        <circle r={1} strokeWidth={2 * thin} />
        <line x1={-1} x2={1} y1={0} y2={0} />
        {grid === "polar" || grid === "points" ? (
          <>
            {[0.25, 0.5, 0.75].map((r) => (
              <circle key={r} r={r} />
            ))}
            <line x1={0} x2={0} y1={-1} y2={1} />
          </>
        ) : (
          <g transform={grid === "admittance" ? "rotate(180)" : undefined}>
            {RESISTANCES.map((r) => (
              <path key={r} d={circle(r)} />
            ))}
            {REACTANCES.flatMap((x) => [
              <path key={x} d={arc(x)} />,
              <path key={-x} d={arc(-x)} />,
            ])}
          </g>
        )}
      </g>
      {(grid === "impedance" || grid === "admittance") && (
        <g className={classes.planeText} fontSize={0.075 * scale}>
          {RESISTANCES.map((r) => {
            const [re] = gamma(r, 0);
            const value = grid === "impedance" ? z0 * r : (1000 / z0) * r;
            return (
              <text key={r} x={grid === "impedance" ? re : -re} y={-0.015 * scale}>
                {`${Number(value.toPrecision(3))}`}
              </text>
            );
          })}
        </g>
      )}
    </svg>
  );
});

/** The value at the place of the cursor that all tiles share. */
function AtCursor({ curve, axis, scale }: { curve: PlaneCurve; axis: string; scale: number }) {
  const at = useCursor(axis);
  if (at === null || at < curve.at[0] || at > curve.at[curve.at.length - 1]) {
    return null;
  }
  const i = nearest(curve.at, at);
  return (
    <circle
      cx={curve.re[i]}
      cy={-curve.im[i]}
      r={0.03 * scale}
      fill="none"
      stroke="var(--ink)"
      strokeWidth={0.012 * scale}
    />
  );
}

/** Complex values in their plane: reflections over lines of equal impedance, or plain points. */
export function ComplexPlane(props: Props) {
  const { curves, grid, axis, markers = [] } = props;
  const clip = useId();
  const main = curves.find((c) => c.re.length > 0);
  const largest = curves.reduce((most, c) => {
    let m = most;
    for (let i = 0; i < c.re.length; i++) {
      m = Math.max(m, Math.hypot(c.re[i], c.im[i]));
    }
    return m;
  }, 1);
  // A transmission with gain needs a wider plane; a passive reflection fits the chart.
  const scale = largest > 1.05 ? largest * 1.05 : 1.06;
  const placeOf = (e: MouseEvent<SVGSVGElement>): number | null => {
    if (!main) {
      return null;
    }
    const box = e.currentTarget.getBoundingClientRect();
    const size = Math.min(box.width, box.height);
    const x = ((e.clientX - box.left - box.width / 2) / size) * 2 * scale;
    const y = (-(e.clientY - box.top - box.height / 2) / size) * 2 * scale;
    let best = 0;
    for (let i = 0; i < main.re.length; i++) {
      const off = Math.hypot(main.re[i] - x, main.im[i] - y);
      best = off < Math.hypot(main.re[best] - x, main.im[best] - y) ? i : best;
    }
    return main.at[best];
  };
  const place = (e: MouseEvent<SVGSVGElement>) => {
    const at = placeOf(e);
    if (at !== null) {
      props.onPlace?.(at);
    }
  };
  return (
    <div className={classes.planeStack}>
      <ChartGrid grid={grid} scale={scale} z0={props.z0 ?? 50} />
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: markers are set from the keyboard by quick entry */}
      <svg
        className={classes.plane}
        viewBox={boxOf(scale)}
        onClick={place}
        onMouseMove={(e) => cursorOf(axis).set(placeOf(e))}
        onMouseLeave={() => cursorOf(axis).set(null)}
        role="img"
        aria-label={props.title}
        data-testid="chart"
      >
        <clipPath id={clip}>
          <circle r={1.05} />
        </clipPath>
        {topmost(curves, grid).map(({ c, k }) => (
          <path
            key={c.label}
            d={grid === "points" ? pointsOf(c.re, c.im) : pathOf(c.re, c.im, 0.004 * scale)}
            fill="none"
            stroke={`var(--trace-${k % 5})`}
            strokeWidth={(grid === "points" ? 0.017 : 0.011) * scale}
            strokeLinecap="round"
            strokeDasharray={
              k === 0 || grid === "points" ? undefined : `${0.03 * scale} ${0.02 * scale}`
            }
          />
        ))}
        {props.places && (
          <path
            d={placesOf(props.places.re, props.places.im, 0.045 * scale)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={0.008 * scale}
          />
        )}
        <g clipPath={`url(#${clip})`}>{props.children}</g>
        {main &&
          markers
            .filter((m) => m.at >= main.at[0] && m.at <= main.at[main.at.length - 1])
            .map((m) => {
              const i = nearest(main.at, m.at);
              const [x, y] = [main.re[i], -main.im[i]];
              return (
                <g key={m.label} className={classes.planeMarker}>
                  <circle cx={x} cy={y} r={0.022 * scale} />
                  <text x={x + 0.035 * scale} y={y - 0.03 * scale} fontSize={0.07 * scale}>
                    {m.label}
                  </text>
                </g>
              );
            })}
        {main && <AtCursor curve={main} axis={axis} scale={scale} />}
      </svg>
      {grid === "points" && curves.length > 1 && (
        <ul className={classes.planeNames}>
          {curves.map((c, k) => (
            <li key={c.label} style={{ color: `var(--trace-${k % 5})` }}>
              {c.label}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
