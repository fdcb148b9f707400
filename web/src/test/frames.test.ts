import { describe, expect, it } from "vitest";
import type { FrameHead, SeriesHead } from "../api/client";
import { factOf, placesOf, readFrame, valuesOf } from "../api/frames";
import { alike, curvesOf, factWords, linesOf } from "../desk/outcomes";

function series(part: Partial<SeriesHead>): SeriesHead {
  return {
    id: "trace",
    label: "live",
    role: "DATA",
    plane: "TX OUT",
    calibrated: true,
    axis: { quantity: "Frequency", unit: "Hz", points: 3, start: 10, step: 5, logarithmic: false },
    quantity: "Level",
    unit: "dBm",
    facts: [],
    rows: null,
    x: null,
    y: [1, 2, 3],
    re: null,
    im: null,
    z: null,
    ...part,
  };
}

/** A frame as the server writes it: header length, header padded to eight, arrays. */
function frame(arrays: { name: string; type: "f32" | "f64"; values: number[] }[]): ArrayBuffer {
  let offset = 0;
  const heads = arrays.map((a) => {
    const head = { name: a.name, type: a.type, offset, length: a.values.length };
    offset += Math.ceil((a.values.length * (a.type === "f64" ? 8 : 4)) / 8) * 8;
    return head;
  });
  let text = JSON.stringify({ arrays: heads });
  while ((4 + text.length) % 8 !== 0) {
    text += " ";
  }
  const buffer = new ArrayBuffer(4 + text.length + offset);
  new DataView(buffer).setInt32(0, text.length, true);
  new Uint8Array(buffer, 4).set(new TextEncoder().encode(text));
  arrays.forEach((a, i) => {
    const at = 4 + text.length + heads[i].offset;
    const View = a.type === "f64" ? Float64Array : Float32Array;
    new View(buffer, at, a.values.length).set(a.values);
  });
  return buffer;
}

describe("frames", () => {
  it("gives each array that the header names", () => {
    const { header, arrays } = readFrame(
      frame([
        { name: "a.x", type: "f64", values: [458525870.25, 458525871] },
        { name: "a.y", type: "f32", values: [-20.5, -21.5, -22.5] },
      ]),
    );
    expect((header as FrameHead).arrays).toHaveLength(2);
    expect(Array.from(arrays.get("a.x") ?? [])).toEqual([458525870.25, 458525871]);
    expect(Array.from(arrays.get("a.y") ?? [])).toEqual([-20.5, -21.5, -22.5]);
  });

  it("finds places of a series: its own, or even ones", () => {
    expect(Array.from(placesOf(series({})))).toEqual([10, 15, 20]);
    expect(placesOf(series({ x: [1, 4, 9] }))).toEqual([1, 4, 9]);
    const arrays = new Map([["trace.x", new Float64Array([7, 8])]]);
    expect(Array.from(placesOf(series({}), arrays))).toEqual([7, 8]);
  });

  it("takes a missing value as not a number", () => {
    expect(valuesOf(series({ y: [1, null] }))).toEqual([1, Number.NaN]);
    expect(factOf(series({}), "RBW")).toBeNaN();
  });
});

describe("outcomes", () => {
  it("draws limits apart from data", () => {
    const [data, limit] = curvesOf([series({}), series({ id: "limit0", role: "LIMIT" })]);
    expect(data).toMatchObject({ limit: false, dots: true, x: [10, 15, 20], y: [1, 2, 3] });
    expect(limit).toMatchObject({ limit: true, dots: false });
  });

  it("lays over one another only what has one axis and one unit", () => {
    expect(alike(series({}), series({ id: "other" }))).toBe(true);
    expect(alike(series({}), series({ unit: "dBFS" }))).toBe(false);
  });

  it("reads the table of lines", () => {
    const lines = {
      id: "lines",
      title: "Lines",
      columns: [],
      rows: [{ cells: [cell(458e6), cell(26.5)], verdict: "NONE" as const }],
    };
    const outcome = { tables: [lines] } as unknown as Parameters<typeof linesOf>[0];
    expect(linesOf(outcome)).toEqual([{ frequencyHz: 458e6, level: 26.5 }]);
  });

  it("says facts with their unit", () => {
    expect(factWords({ label: "RBW", value: 3000, unit: "Hz", text: "" })).toBe("RBW 3 kHz");
    expect(factWords({ label: "window", value: null, unit: "", text: "Hann" })).toBe("window Hann");
  });
});

const cell = (value: number) => ({ value, text: "" });
