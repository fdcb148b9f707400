import type { TriggerSettings } from "../../api/client";
import { formatEngineering, formatHertz, parseQuantity } from "../../components/units";

/** A point of a mask. */
export interface MaskPoint {
  hz: number;
  levelDb: number;
}

type Read<T> = { value: T } | { wrong: string };

/** Whether intervals shall fit, or be told when one does not. */
export const BROKEN: Record<string, string> = {
  false: "come",
  true: "do not come",
};

export const NO_INTERVALS = { intervalsWithinSeconds: 0, intervalsBroken: false };

const NONE = /^(any|none|flat|)$/i;

/** Times from one to the next, such as "1 ms, 2 ms". */
export function readIntervals(text: string): Read<number[]> {
  if (NONE.test(text.trim())) {
    return { value: [] };
  }
  const value: number[] = [];
  for (const part of text.split(/[,;]/)) {
    const seconds = parseQuantity(part, "s");
    if (seconds === null || !(seconds > 0)) {
      return { wrong: `"${part.trim()}" is no time. Write such as 3.1 ms, or 1 ms, 2 ms, 4 ms.` };
    }
    value.push(seconds);
  }
  return { value };
}

export const showIntervals = (seconds: number[]) =>
  seconds.map((s) => formatEngineering(s, "s", 7)).join(", ");

/** A change of the intervals, with how far they may be off if that was not said yet. */
export function intervalsChange(
  s: Pick<TriggerSettings, "intervalsWithinSeconds" | "intervalsBroken">,
  intervals: number[],
) {
  const shortest = Math.min(...intervals);
  const fits = s.intervalsWithinSeconds > 0 && s.intervalsWithinSeconds < shortest;
  return {
    intervals,
    intervalsWithinSeconds:
      fits || intervals.length === 0 ? s.intervalsWithinSeconds : shortest / 50,
    intervalsBroken: s.intervalsBroken && intervals.length === 1,
  };
}

/** Points of a mask, such as "164.1M -60, 164.3M -60". */
export function readMask(text: string): Read<MaskPoint[]> {
  if (NONE.test(text.trim())) {
    return { value: [] };
  }
  const value: MaskPoint[] = [];
  for (const part of text.split(/[,;]/)) {
    const match = /^\s*(\S.*?)\s+([+\-\u2212]?[\d.]+)(?:\s*dB\w*)?\s*$/.exec(part);
    const hz = match && parseQuantity(match[1], "Hz");
    const levelDb = match && parseQuantity(match[2], "dB");
    if (typeof hz !== "number" || typeof levelDb !== "number") {
      return {
        wrong: `"${part.trim()}" is no point of a mask. Write such as 164.1M -60, 164.3M -60.`,
      };
    }
    value.push({ hz, levelDb });
  }
  return { value };
}

const FEW = 2;

/** A long mask is told by its length. */
export const briefMask = (points: MaskPoint[]) =>
  points.length <= FEW ? showMask(points) : `${points.length} points`;

export const showMask = (points: MaskPoint[]) =>
  points.map((p) => `${formatHertz(p.hz)} ${p.levelDb}`).join(", ");

/** A change of the mask, with the band that it is for. */
export function maskChange(mask: MaskPoint[]) {
  const low = mask[0]?.hz;
  const high = mask.at(-1)?.hz;
  return low === undefined || high === undefined || !(high > low)
    ? { mask }
    : { mask, centreHz: (low + high) / 2, bandHz: high - low };
}

const PARTS = 16;

/** To so many digits behind the point, or before it. */
const rounded = (v: number, digits: number) => Math.round(v * 10 ** digits) / 10 ** digits;

/**
 * A mask in steps over what is there.
 *
 * @param x frequencies, from low to high
 * @param y their levels
 * @param marginDb that it lies over the highest of each part
 * @param whole where it begins and ends; undefined for where the frequencies do
 */
export function maskOver(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  marginDb: number,
  whole?: [number, number],
) {
  const ends = whole ?? [x[0], x[x.length - 1]];
  const digits = Math.ceil(-Math.log10((ends[1] - ends[0]) / 500));
  const place = (i: number) =>
    i === 0 ? ends[0] : i === x.length - 1 ? ends[1] : rounded(x[i], digits);
  const out: MaskPoint[] = [];
  const count = Math.min(PARTS, x.length - 1);
  for (let part = 0; part < count; part++) {
    const from = Math.floor((part * (x.length - 1)) / count);
    const to = Math.floor(((part + 1) * (x.length - 1)) / count);
    let highest = Number.NEGATIVE_INFINITY;
    // A point more on each side, since steps lie at round frequencies.
    for (let i = Math.max(0, from - 1); i <= Math.min(x.length - 1, to + 1); i++) {
      highest = Math.max(highest, y[i]);
    }
    const levelDb = Math.ceil(highest + marginDb);
    if (out.at(-1)?.levelDb === levelDb) {
      out.pop();
    } else {
      out.push({ hz: place(from), levelDb });
    }
    out.push({ hz: place(to), levelDb });
  }
  return out;
}
