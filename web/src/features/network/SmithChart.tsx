import { memo } from "react";
import type { ShownNetwork, TwoPortDetail } from "../../api/client";
import { formatEngineering, formatHertz } from "../../components/units";
import classes from "./NetworkPage.module.css";
import { active, inside } from "./panes";

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

/** What stands at one point: impedance, and the inductor or capacitor that has its reactance. */
export function impedanceWords(re: number, im: number, z0: number, hertz: number): string {
  const below = Math.max((1 - re) ** 2 + im * im, 1e-18);
  const r = (z0 * (1 - re * re - im * im)) / below;
  const exact = (z0 * 2 * im) / below;
  const x = Math.abs(exact) < 1e-6 * z0 ? 0 : exact;
  if (x === 0) {
    return `${Number(r.toPrecision(4))} + j0 \u03A9`;
  }
  const part =
    x >= 0
      ? formatEngineering(x / (2 * Math.PI * hertz), "H", 3)
      : formatEngineering(-1 / (2 * Math.PI * hertz * x), "F", 3);
  const sign = x < 0 ? "\u2212" : "+";
  return `${Number(r.toPrecision(4))} ${sign} j${Number(Math.abs(x).toPrecision(4))} \u03A9, ${part}`;
}

export interface ChartMarker {
  label: string;
  hertz: number;
}

interface Props {
  networks: ShownNetwork[];
  pane: number;
  /** Impedance lines, admittance lines, or circles of equal reflection alone. */
  grid: "impedance" | "admittance" | "polar";
  /** The reflection's port: circles of its source or load are drawn at the markers; 0 for none. */
  port?: number;
  markers: ChartMarker[];
  onPlace: (hertz: number) => void;
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

/** Loads and sources at the edge of stability, at the markers; beyond or within lies trouble. */
function Circles({ details, port }: { details: TwoPortDetail[]; port: number }) {
  return details.filter(active).map((d) => {
    const centre = port === 2 ? d.loadCircle : d.sourceCircle;
    const radius = port === 2 ? d.loadRadius : d.sourceRadius;
    const match = port === 2 ? d.matchedLoad : d.matchedSource;
    return (
      <g key={d.hertz} clipPath="url(#rovnik-chart)">
        {radius > 0 && radius < 50 && (
          <circle
            cx={centre.re}
            cy={-centre.im}
            r={radius}
            fill="none"
            stroke="var(--plane)"
            strokeWidth={0.008}
            strokeDasharray="0.04 0.02"
          >
            <title>{`edge of stability of the ${port === 2 ? "load" : "source"}`}</title>
          </circle>
        )}
        {match && (
          <path
            d={`M${match.re - 0.03} ${-match.im}h0.06M${match.re} ${-match.im - 0.03}v0.06`}
            stroke="var(--ink)"
            strokeWidth={0.012}
          >
            <title>{`matches both ports: ${port === 2 ? "load" : "source"}`}</title>
          </path>
        )}
      </g>
    );
  });
}

/** Index of the frequency next to one; the frequencies rise. */
export function nearest(frequencies: ArrayLike<number>, hertz: number): number {
  let low = 0;
  let high = frequencies.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (frequencies[middle] <= hertz) {
      low = middle;
    } else {
      high = middle;
    }
  }
  return hertz - frequencies[low] <= frequencies[high] - hertz ? low : high;
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
    <svg className={classes.chartUnder} viewBox={boxOf(scale)} aria-hidden="true">
      <g className={classes.chartGrid} strokeWidth={thin} fill="none">
        <circle r={1} strokeWidth={2 * thin} />
        <line x1={-1} x2={1} y1={0} y2={0} />
        {grid === "polar" ? (
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
      {grid !== "polar" && (
        <g className={classes.chartText} fontSize={0.075 * scale}>
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

/** Reflections in their plane, with lines of equal resistance and reactance. */
export function SmithChart({ networks, pane, grid, port = 0, markers, onPlace }: Props) {
  const largest = networks.reduce((most, n) => {
    const c = n.curves[pane];
    let m = most;
    for (let i = 0; i < c.re.length; i++) {
      m = Math.max(m, Math.hypot(c.re[i], c.im[i]));
    }
    return m;
  }, 1);
  // A transmission with gain needs a wider plane; a passive reflection fits the chart.
  const scale = largest > 1.05 ? largest * 1.05 : 1.06;
  const place = (e: React.MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const size = Math.min(box.width, box.height);
    const x = ((e.clientX - box.left - box.width / 2) / size) * 2 * scale;
    const y = (-(e.clientY - box.top - box.height / 2) / size) * 2 * scale;
    const n = networks[0];
    const c = n?.curves[pane];
    if (!c || c.re.length === 0) {
      return;
    }
    let best = 0;
    for (let i = 0; i < c.re.length; i++) {
      const off = Math.hypot(c.re[i] - x, c.im[i] - y);
      best = off < Math.hypot(c.re[best] - x, c.im[best] - y) ? i : best;
    }
    onPlace(n.frequencyHz[best]);
  };
  return (
    <div className={classes.chartStack}>
      <ChartGrid grid={grid} scale={scale} z0={networks[0]?.z0[0] ?? 50} />
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: markers are set from the keyboard by quick entry */}
      <svg
        className={classes.chart}
        viewBox={boxOf(scale)}
        onClick={place}
        role="img"
        aria-label="Chart of reflections"
        data-testid="chart"
      >
        <clipPath id="rovnik-chart">
          <circle r={1.05} />
        </clipPath>
        {networks.map((n, k) => {
          const c = n.curves[pane];
          return (
            <path
              key={`${n.id} ${n.name}`}
              d={pathOf(c.re, c.im, 0.004 * scale)}
              fill="none"
              stroke={`var(--trace-${k % 5})`}
              strokeWidth={0.011 * scale}
              strokeDasharray={k === 0 ? undefined : `${0.03 * scale} ${0.02 * scale}`}
            />
          );
        })}
        {port > 0 && networks[0] && <Circles details={networks[0].details} port={port} />}
        {networks[0] &&
          networks[0].curves[pane].re.length > 0 &&
          markers
            .filter((m) => inside(networks[0], m.hertz))
            .map((m) => {
              const n = networks[0];
              const i = nearest(n.frequencyHz, m.hertz);
              const [x, y] = [n.curves[pane].re[i], -n.curves[pane].im[i]];
              return (
                <g key={m.label} className={classes.chartMarker}>
                  <circle cx={x} cy={y} r={0.022 * scale} />
                  <text x={x + 0.035 * scale} y={y - 0.03 * scale} fontSize={0.07 * scale}>
                    {m.label}
                  </text>
                </g>
              );
            })}
        <title>{`${networks.map((n) => n.name).join(", ")}; ${markers.map((m) => formatHertz(m.hertz, 6)).join(", ")}`}</title>
      </svg>
    </div>
  );
}
