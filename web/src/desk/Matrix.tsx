import { useMantineColorScheme } from "@mantine/core";
import { useEffect, useRef } from "react";
import { cursorOf, useCursor } from "../components/cursor";
import classes from "./Desk.module.css";

/**
 * Steps of lightness from paper to ink: told apart without colours, and in grey print. The middle
 * leans to blue, so that it is not taken for a shade of the grid.
 */
export const SHADES = [
  [252, 249, 240],
  [206, 219, 226],
  [142, 176, 202],
  [72, 124, 170],
  [24, 66, 122],
  [10, 20, 48],
] as const;

/** Colour of a share of the range, 0 to 1; what lies outside has the colour of its end. */
export function shade(share: number): [number, number, number] {
  const at = Math.min(1, Math.max(0, Number.isFinite(share) ? share : 0)) * (SHADES.length - 1);
  const i = Math.min(SHADES.length - 2, Math.floor(at));
  const mix = (k: number) =>
    Math.round(SHADES[i][k] + (at - i) * (SHADES[i + 1][k] - SHADES[i][k]));
  return [mix(0), mix(1), mix(2)];
}

interface Props {
  title: string;
  /** Rows from top to bottom, each over the whole axis. */
  rows: ArrayLike<number>[];
  /** Ends of the axis across. */
  across: [number, number];
  /** The axis across, as other tiles name it. */
  axis: string;
  range: [number, number];
  unit: string;
  acrossWords: (x: number) => string;
  /** What the rows are, at the top and at the bottom. */
  top: string;
  bottom: string;
  /** Drawn over the shades: a way and a place, in shares of the axes from the left and the top. */
  over?: { way: [number, number][]; place: [number, number] };
}

/** Values over two axes as shades, with their legend. */
export function Matrix(props: Props) {
  const { rows, range, across, axis } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const cursor = useCursor(axis);
  // More is farther from the sheet: darker on paper, lighter in a dark lab.
  const dark = useMantineColorScheme().colorScheme === "dark";
  const points = rows[0]?.length ?? 0;
  useEffect(() => {
    const c = canvas.current;
    const ctx = c?.getContext("2d");
    if (!c || !ctx || points === 0) {
      return;
    }
    // Not more columns than can be seen: the highest of each stands for it.
    const width = Math.min(points, 1024);
    c.width = width;
    c.height = rows.length;
    const image = ctx.createImageData(width, rows.length);
    rows.forEach((row, r) => {
      for (let x = 0; x < width; x++) {
        const from = Math.floor((x * points) / width);
        const to = Math.max(from + 1, Math.floor(((x + 1) * points) / width));
        let most = row[from];
        for (let i = from + 1; i < to; i++) {
          most = Math.max(most, row[i]);
        }
        const share = (most - range[0]) / (range[1] - range[0]);
        const [red, green, blue] = shade(dark ? 1 - share : share);
        const at = 4 * (r * width + x);
        image.data[at] = red;
        image.data[at + 1] = green;
        image.data[at + 2] = blue;
        image.data[at + 3] = 255;
      }
    });
    ctx.putImageData(image, 0, 0);
  }, [rows, points, range, dark]);
  const place = cursor === null ? -1 : (cursor - across[0]) / (across[1] - across[0]);
  return (
    <div className={classes.matrix}>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the pointer is followed; nothing is done by it alone */}
      <div
        className={classes.matrixBody}
        onMouseMove={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          const at = (e.clientX - box.left) / box.width;
          cursorOf(axis).set(across[0] + at * (across[1] - across[0]));
        }}
        onMouseLeave={() => cursorOf(axis).set(null)}
      >
        <canvas ref={canvas} className={classes.matrixCanvas} role="img" aria-label={props.title} />
        {props.over && (
          <svg
            className={classes.matrixOver}
            viewBox="0 0 1 1"
            preserveAspectRatio="none"
            aria-hidden="true"
          >
            {["halo", "line"].map((part) => (
              <polyline
                key={part}
                className={classes[part]}
                points={props.over?.way.map((p) => p.join(",")).join(" ")}
              />
            ))}
          </svg>
        )}
        {props.over && (
          <div
            className={classes.matrixDot}
            style={{ left: `${100 * props.over.place[0]}%`, top: `${100 * props.over.place[1]}%` }}
          />
        )}
        {place >= 0 && place <= 1 && (
          <div className={classes.matrixCursor} style={{ left: `${100 * place}%` }} />
        )}
      </div>
      <div className={`figures ${classes.matrixFoot}`}>
        <span>{props.acrossWords(across[0])}</span>
        <span className={classes.legend}>
          {range[0]} <span className={classes.legendBar} style={{ background: legend(dark) }} />{" "}
          {range[1]} {props.unit}
        </span>
        <span>{props.acrossWords(across[1])}</span>
        <span className={classes.matrixWords}>
          top: {props.top}; bottom: {props.bottom}
        </span>
      </div>
    </div>
  );
}

function legend(dark: boolean): string {
  const colours = SHADES.map((s) => `rgb(${s.join(" ")})`);
  return `linear-gradient(to ${dark ? "left" : "right"}, ${colours.join(", ")})`;
}
