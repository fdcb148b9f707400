import { useMantineColorScheme } from "@mantine/core";
import type { MouseEvent } from "react";
import { placeNear, useBoardPicture } from "./board";
import classes from "./Desk.module.css";
import { SHADES, shade, shareOf } from "./Matrix";

/** One place on a board. */
export interface BoardPlace {
  name: string;
  /** From the left edge, m. */
  across: number;
  /** From the lower edge, m. */
  up: number;
  /** Level there; not a number where it was not looked at. */
  level: number;
}

/** Millimetres beyond the outermost places. */
const MARGIN = 12;
const SMALLEST = 40;

/** Shades of levels that are alike would tell of noise alone. */
const LEAST_RANGE_DB = 3;

/** Size of what is written, in mm of the drawing. */
const LETTER = 2.1;
const LINES = 7;
const BESIDE = 3.8;

interface Label {
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
}

/** Where what is written at each place hides nothing, on the board if it can be. */
export function labelsOf(
  places: { x: number; y: number; letters: number }[],
  width: number,
): Label[] {
  const taken = places.map(({ x, y }) => [x - 3, y - 3, x + 3, y + 3]);
  return places.map(({ x, y, letters }) => {
    const wide = LETTER * letters;
    const tries: [Label, number][] = [
      [{ x: x + BESIDE, y: y - 0.4, anchor: "start" }, x + BESIDE],
      [{ x: x - BESIDE, y: y - 0.4, anchor: "end" }, x - BESIDE - wide],
      [{ x, y: y + 6.4, anchor: "middle" }, x - wide / 2],
      [{ x, y: y - 7.4, anchor: "middle" }, x - wide / 2],
    ];
    const box = ([label, left]: [Label, number]) => [
      left,
      label.y - 3,
      left + wide,
      label.y - 3 + LINES,
    ];
    const free = (t: [Label, number]) => {
      const b = box(t);
      return taken.every((o) => b[0] > o[2] || b[2] < o[0] || b[1] > o[3] || b[3] < o[1]);
    };
    const inside = ([, left]: [Label, number]) => left >= 0 && left + wide <= width;
    const chosen = tries.find((t) => inside(t) && free(t)) ?? tries.find(free) ?? tries[0];
    taken.push(box(chosen));
    return chosen[0];
  });
}

/** Levels at their places on a board that is drawn as large as they ask for. */
export function BoardMap(props: {
  title: string;
  places: BoardPlace[];
  unit: string;
  /** Lowest and highest level, of this board and of what it is compared with. */
  range: [number, number];
}) {
  const { title, places, unit } = props;
  const high = props.range[1];
  const low = Math.min(high - LEAST_RANGE_DB, props.range[0]);
  const picture = useBoardPicture();
  const photo = picture?.url ? picture : undefined;
  const most = (least: number, of: number[]) =>
    Math.max(least, ...of.map((m) => 1000 * m)) + MARGIN;
  // Places that lie off the photograph are not lost.
  const width = photo
    ? Math.max(
        1000 * photo.widthMetres,
        most(
          0,
          places.map((p) => p.across),
        ) - MARGIN,
      )
    : most(
        SMALLEST,
        places.map((p) => p.across),
      );
  const height = photo
    ? Math.max(
        1000 * photo.heightMetres,
        most(
          0,
          places.map((p) => p.up),
        ) - MARGIN,
      )
    : most(
        SMALLEST / 2,
        places.map((p) => p.up),
      );
  const point = (e: MouseEvent<SVGSVGElement>) => {
    const matrix = e.currentTarget.getScreenCTM();
    if (!matrix || !picture?.onPlace) {
      return;
    }
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    const [across, up] = [at.x, height - at.y];
    if (across < 0 || up < 0 || across > width || up > height) {
      return;
    }
    const known = placeNear(places, across, up);
    known
      ? picture.onPlace(known.across, known.up, known.name)
      : picture.onPlace(Math.round(across) / 1000, Math.round(up) / 1000);
  };
  // What is strong stands out of the ground, in the dark as well.
  const dark = useMantineColorScheme().colorScheme === "dark";
  const colour = (share: number) => `rgb(${shade(dark ? 1 - share : share).join(",")})`;
  const words = (level: number) =>
    Number.isFinite(level) ? level.toFixed(1).replace("-", "\u2212") : "\u2014";
  const labels = labelsOf(
    places.map((p) => ({
      x: 1000 * p.across,
      y: height - 1000 * p.up,
      letters: Math.max(6, p.name.length),
    })),
    width,
  );
  return (
    <div className={classes.board}>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: a place is typed as well, with its millimetres */}
      <svg
        viewBox={`${-MARGIN} 0 ${width + 2 * MARGIN} ${height + MARGIN}`}
        role="img"
        data-photo={photo ? "" : undefined}
        data-points={picture?.onPlace ? "" : undefined}
        onClick={point}
      >
        <title>{`${title}: ${places.map((p) => `${p.name} ${words(p.level)} ${unit}`).join(", ")}`}</title>
        {photo && (
          <image
            href={photo.url ?? undefined}
            x={0}
            y={height - 1000 * photo.heightMetres}
            width={1000 * photo.widthMetres}
            height={1000 * photo.heightMetres}
            preserveAspectRatio="none"
          />
        )}
        <rect
          x={0}
          y={photo ? 0 : 1}
          width={width}
          height={photo ? height : height - 1}
          rx={1.5}
          fill="none"
          stroke="var(--ink-soft)"
          strokeWidth={0.5}
        />
        {places.map((p, i) => {
          const at = labels[i];
          return (
            <g key={p.name}>
              <circle
                cx={1000 * p.across}
                cy={height - 1000 * p.up}
                r={2.6}
                fill={Number.isFinite(p.level) ? colour(shareOf(p.level, [low, high])) : "none"}
                stroke="var(--ink)"
                strokeWidth={0.4}
              />
              <text x={at.x} y={at.y} textAnchor={at.anchor} className={classes.boardName}>
                {p.name}
              </text>
              <text
                x={at.x}
                y={at.y + 3.4}
                textAnchor={at.anchor}
                className={`figures ${classes.boardLevel}`}
              >
                {words(p.level)}
              </text>
            </g>
          );
        })}
        <text x={0} y={height + 5} className={classes.boardLevel}>
          0
        </text>
        <text x={width} y={height + 5} textAnchor="end" className={classes.boardLevel}>
          {`${Math.round(width)} mm`}
        </text>
      </svg>
      <div className={classes.boardLegend}>
        <span className="figures">{`${words(low)} ${unit}`}</span>
        <span
          className={classes.boardScale}
          style={{
            background: `linear-gradient(to right, ${SHADES.map((_, i) =>
              colour(i / (SHADES.length - 1)),
            ).join(", ")})`,
          }}
        />
        <span className="figures">{`${words(high)} ${unit}`}</span>
      </div>
    </div>
  );
}
