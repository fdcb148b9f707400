import { useMantineColorScheme } from "@mantine/core";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { cursorOf, useCursor } from "../components/cursor";
import { withMinus } from "../components/units";
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

const FINE = 256;

/** Pixels of so many steps of the range, as a little-endian canvas has them. */
const COLOURS = Uint32Array.from({ length: FINE }, (_, i) => {
  const [red, green, blue] = shade(i / (FINE - 1));
  return (255 << 24) | (blue << 16) | (green << 8) | red;
});

/** Where between the ends of the range a value lies; what is 0 has no place over decades. */
export function shareOf(value: number, range: [number, number], decades = false): number {
  return decades
    ? value <= 0
      ? 0
      : // The rarest is still a step away from what never is.
        0.15 + (0.85 * Math.log(value / range[0])) / Math.max(1e-9, Math.log(range[1] / range[0]))
    : (value - range[0]) / (range[1] - range[0]);
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
  /** Shades over decades: what is rare is seen beside what is always there. */
  decades?: boolean;
  unit: string;
  /** A place across in words, or a distance of two. */
  acrossWords: (x: number) => string;
  /** Ends of the axis down, where it is one of numbers, and a place or distance in words. */
  down?: { ends: [number, number]; words: (y: number) => string; ticks: (y: number) => string };
  /** What the rows are, at the top and at the bottom, where they are not numbers. */
  top?: string;
  bottom?: string;
  /** Drawn over the shades: a way and a place, in shares of the axes from the left and the top. */
  over?: { way: [number, number][]; place: [number, number] };
}

/** A place in shares of both axes, from the left and the top. */
interface Spot {
  x: number;
  y: number;
}

const TICKS = [0, 0.25, 0.5, 0.75, 1];

const within = (share: number) => Math.min(1, Math.max(0, share));
const between = ([from, to]: [number, number], share: number) => from + share * (to - from);

/** Draws the rows as shades; the highest of those that share a column stands for it. */
function draw(c: HTMLCanvasElement, props: Props, dark: boolean) {
  const { rows, range, decades } = props;
  const points = rows[0]?.length ?? 0;
  const ctx = c.getContext("2d");
  if (!ctx || points === 0) {
    return;
  }
  const width = Math.min(points, 1024);
  // A canvas that is given a size anew, even the same one, is made anew.
  if (c.width !== width || c.height !== rows.length) {
    c.width = width;
    c.height = rows.length;
  }
  const image = ctx.createImageData(width, rows.length);
  const pixels = new Uint32Array(image.data.buffer);
  let at = 0;
  for (const row of rows) {
    for (let x = 0; x < width; x++) {
      const to = Math.max(x + 1, Math.floor(((x + 1) * points) / width));
      let most = row[Math.floor((x * points) / width)];
      for (let i = Math.floor((x * points) / width) + 1; i < to; i++) {
        most = Math.max(most, row[i]);
      }
      const share = within(shareOf(most, range, decades)) || 0;
      pixels[at++] = COLOURS[Math.round((dark ? 1 - share : share) * (FINE - 1))];
    }
  }
  ctx.putImageData(image, 0, 0);
}

/** Values over two axes as shades, with their legend; one spot is read, against another if marked. */
export function Matrix(props: Props) {
  const { rows, range, across, axis, decades, down } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const cursor = useCursor(axis);
  const [spot, setSpot] = useState<Spot | null>(null);
  const [mark, setMark] = useState<Spot | null>(null);
  // More is farther from the sheet: darker on paper, lighter in a dark lab.
  const dark = useMantineColorScheme().colorScheme === "dark";
  // biome-ignore lint/correctness/useExhaustiveDependencies: the other props are not drawn with
  useEffect(() => {
    canvas.current && draw(canvas.current, props, dark);
  }, [rows, range[0], range[1], decades, dark]);
  const place = cursor === null ? -1 : (cursor - across[0]) / (across[1] - across[0]);
  const go = (to: Spot | null) => {
    setSpot(to);
    cursorOf(axis).set(to && between(across, to.x));
  };
  const onKey = (e: KeyboardEvent) => {
    const step = e.shiftKey ? 0.1 : 0.01;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const from = spot ?? { x: 0.5, y: 0.5 };
    if (moves[e.key]) {
      go({ x: within(from.x + moves[e.key][0]), y: within(from.y + moves[e.key][1]) });
    } else if (e.key === "Enter") {
      setMark(from);
    } else if (e.key === "Escape") {
      setMark(null);
    } else {
      return;
    }
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className={classes.matrix}>
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing that arrow keys are taken to */}
      <div
        className={classes.matrixBody}
        role="group"
        aria-label={`${props.title}: arrow keys read a place, Enter marks it`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is read with the arrow keys
        tabIndex={0}
        onKeyDown={onKey}
        onMouseMove={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          go({
            x: within((e.clientX - box.left) / box.width),
            y: within((e.clientY - box.top) / box.height),
          });
        }}
        onMouseLeave={() => go(null)}
        onClick={() => setMark(spot)}
        onDoubleClick={() => setMark(null)}
      >
        <canvas ref={canvas} className={classes.matrixCanvas} role="img" aria-label={props.title} />
        {down &&
          TICKS.map((share) => (
            <span
              key={share}
              className={`figures ${classes.matrixTick}`}
              // The first and the last stay beside the shades.
              style={{ ...at(share), transform: `translateY(${-100 * share}%)` }}
            >
              {down.ticks(between(down.ends, share))}
            </span>
          ))}
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
        {spot && <div className={classes.matrixLevel} style={at(spot.y)} />}
        {mark && (
          <div className={classes.matrixDot} style={{ left: `${100 * mark.x}%`, ...at(mark.y) }} />
        )}
      </div>
      <div className={`figures ${classes.matrixFoot}`}>
        <span>{props.acrossWords(across[0])}</span>
        <span>{props.acrossWords(across[1])}</span>
      </div>
      <div className={`figures ${classes.matrixWords}`}>
        <span className={classes.legend}>
          {withMinus(String(range[0]))}{" "}
          <span className={classes.legendBar} style={{ background: legend(dark) }} />{" "}
          {withMinus(String(range[1]))} {props.unit}
        </span>
        {props.top && `top: ${props.top}; bottom: ${props.bottom}`}
        {spot && <span className={classes.matrixTold}>{told(props, spot, mark)}</span>}
      </div>
    </div>
  );
}

const at = (share: number) => ({ top: `${100 * share}%` });

/** What is at a spot, and how far it is from the mark. */
function told(props: Props, spot: Spot, mark: Spot | null): string {
  const { rows, across, down } = props;
  const row = rows[Math.min(rows.length - 1, Math.floor(spot.y * rows.length))];
  const value = row?.[Math.min(row.length - 1, Math.floor(spot.x * row.length))];
  const words = [props.acrossWords(between(across, spot.x))];
  if (down) {
    words.push(down.words(between(down.ends, spot.y)));
  }
  if (value !== undefined && Number.isFinite(value)) {
    words.push(`${Number(value.toPrecision(3))} ${props.unit}`.replace("-", "\u2212"));
  }
  if (!mark) {
    return words.join(", ");
  }
  const far = [props.acrossWords(between(across, spot.x) - between(across, mark.x))];
  if (down) {
    far.push(down.words(between(down.ends, spot.y) - between(down.ends, mark.y)));
  }
  return `${words.join(", ")}; off the mark by ${far.join(", ")}`;
}

function legend(dark: boolean): string {
  const colours = SHADES.map((s) => `rgb(${s.join(" ")})`);
  return `linear-gradient(to ${dark ? "left" : "right"}, ${colours.join(", ")})`;
}
