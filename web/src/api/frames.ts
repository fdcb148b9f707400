import type { ArrayHead, FrameHead, SeriesHead } from "./client";

/** The arrays of one frame by name, as "trace.y". */
export type Arrays = Map<string, Float32Array | Float64Array>;

/** One frame as it came: its header, and the arrays that it names. */
export interface RawFrame {
  header: FrameHead;
  arrays: Arrays;
}

/** The one reader of frames: header length, JSON header, then the arrays that the header names. */
export function readFrame(buffer: ArrayBuffer): RawFrame {
  const headerBytes = new DataView(buffer).getInt32(0, true);
  const text = new TextDecoder().decode(new Uint8Array(buffer, 4, headerBytes));
  const header = JSON.parse(text) as FrameHead;
  const start = 4 + headerBytes;
  const arrays: Arrays = new Map(
    header.arrays.map((a: ArrayHead) => [
      a.name,
      a.type === "f64"
        ? new Float64Array(buffer, start + a.offset, a.length)
        : new Float32Array(buffer, start + a.offset, a.length),
    ]),
  );
  return { header, arrays };
}

/** Places of a series: those that came, or the even ones of its axis. */
export function placesOf(series: SeriesHead, arrays?: Arrays): ArrayLike<number> {
  const own = arrays?.get(`${series.id}.x`) ?? series.x;
  if (own) {
    return own;
  }
  const { start, step, points } = series.axis;
  return Float64Array.from({ length: points }, (_, i) => start + i * step);
}

/** Real values of a series. */
export function valuesOf(series: SeriesHead, arrays?: Arrays): ArrayLike<number> {
  return arrays?.get(`${series.id}.y`) ?? (series.y ?? []).map((v) => v ?? Number.NaN);
}

const NONE = new Float64Array(0);

/** Real and imaginary parts of a complex series; empty for others. */
export function partsOf(series: SeriesHead, arrays?: Arrays) {
  return {
    re: arrays?.get(`${series.id}.re`) ?? series.re ?? NONE,
    im: arrays?.get(`${series.id}.im`) ?? series.im ?? NONE,
  };
}

/** Rows of a matrix, each over the whole axis; values come place after place. */
export function matrixOf(series: SeriesHead, arrays?: Arrays): Float32Array[] {
  const z: ArrayLike<number> = arrays?.get(`${series.id}.z`) ?? series.z ?? NONE;
  const rows = series.rows?.points ?? 0;
  const points = series.axis.points;
  return Array.from({ length: rows }, (_, r) => {
    const row = new Float32Array(points);
    for (let x = 0, at = r; x < points; x++, at += rows) {
      row[x] = z[at];
    }
    return row;
  });
}

/** A number that is known of a series, NaN if it is not. */
export function factOf(series: SeriesHead, label: string): number {
  return series.facts.find((f) => f.label === label)?.value ?? Number.NaN;
}

/** Words that are known of a series. */
export function wordsOf(series: SeriesHead, label: string): string {
  return series.facts.find((f) => f.label === label)?.text ?? "";
}
