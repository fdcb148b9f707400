import { describe, expect, it } from "vitest";
import type { NetworkViewRequest, Outcome, SeriesHead, Tiles } from "../api/client";
import { matrixOf } from "../api/frames";
import { nearest } from "../components/nearest";
import { viewsOf } from "../desk/catalogue";
import { SHADES, shade } from "../desk/Matrix";
import { whatsOf } from "../desk/OutcomeTile";
import { countFor, filled } from "../desk/tiles";
import { highestOf, nextPeak, viewOf, whatOf } from "../features/network/panes";
import { settingOf, viewsShown } from "../features/network/useNetworks";
import { ALL_LOOKS, MOST_LOOKS, PastLooks } from "../features/spectrum/pastLooks";

function series(part: Partial<SeriesHead>): SeriesHead {
  return {
    id: "trace",
    label: "Level",
    role: "DATA",
    plane: "TX OUT",
    calibrated: true,
    axis: { quantity: "Frequency", unit: "Hz", logarithmic: false, start: 0, step: 1, points: 3 },
    quantity: "Level",
    unit: "dBm",
    rows: null,
    x: null,
    y: [1, 2, 3],
    re: null,
    im: null,
    z: null,
    facts: [],
    ...part,
  };
}

const rows = { quantity: "Time", unit: "s", logarithmic: false, start: 0, step: 0.1, points: 2 };

describe("views that suit a series", () => {
  it("are a curve or numbers for real values", () => {
    expect(viewsOf(series({}))).toEqual(["curve", "values"]);
  });

  it("are a chart for reflections, a plane for other complex values", () => {
    const complex = { y: null, re: [0], im: [0], unit: "" };
    expect(viewsOf(series({ ...complex, quantity: "Reflection" }))[0]).toBe("chart");
    expect(viewsOf(series({ ...complex, quantity: "Symbols" }))).toEqual([
      "plane",
      "points",
      "values",
    ]);
  });

  it("are shades for a matrix, symbols for decisions", () => {
    expect(viewsOf(series({ rows, y: null, z: [] }))).toEqual(["matrix"]);
    const decided = { ...series({}).axis, quantity: "Symbol", unit: "" };
    expect(viewsOf(series({ axis: decided, quantity: "Value" }))).toContain("symbols");
  });
});

describe("what an outcome has to show", () => {
  it("is its data, tables and readings, not its limits", () => {
    const limit = series({ id: "limit", role: "LIMIT" });
    const outcome = {
      series: [series({}), series({ id: "two", label: "Two" }), limit],
      tables: [{ id: "lines", title: "Lines, strongest first", columns: [], rows: [] }],
      readings: [],
    } as unknown as Outcome;
    expect(whatsOf(outcome).map((w) => w.value)).toEqual(["all", "trace", "two", "table:lines"]);
  });
});

it("a matrix is read row by row though it comes place after place", () => {
  const m = series({ rows, y: null, z: [1, 10, 2, 20, 3, 30] });
  expect(matrixOf(m).map((r) => Array.from(r))).toEqual([
    [1, 2, 3],
    [10, 20, 30],
  ]);
});

it("shades darken evenly, so that grey print tells them apart", () => {
  const light = ([r, g, b]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const steps = Array.from({ length: 21 }, (_, i) => light(shade(i / 20)));
  for (let i = 1; i < steps.length; i++) {
    expect(steps[i]).toBeLessThan(steps[i - 1] - 3);
  }
  expect(shade(-1)).toEqual([...SHADES[0]]);
  expect(shade(2)).toEqual([...SHADES[SHADES.length - 1]]);
});

describe("tiles", () => {
  const tile = (what: string) => ({ what, view: "curve" });
  const first: Tiles = { count: 2, tiles: ["a", "b", "c", "d", "e", "f"].map(tile) };

  it("are 1, 2, 4 or 6", () => {
    expect([1, 2, 3, 4, 5, 6, 99].map(countFor)).toEqual([1, 2, 4, 4, 6, 6, 6]);
  });

  it("fill up with the first ones", () => {
    const got = filled({ count: 4, tiles: [tile("x")] }, first);
    expect(got.tiles.map((t) => t.what)).toEqual(["x", "b", "c", "d", "e", "f"]);
  });

  it("name a parameter and its format", () => {
    expect(viewOf({ what: "S21", view: "PHASE" })).toEqual({ row: 2, column: 1, format: "PHASE" });
    expect(viewOf({ what: whatOf(10, 2), view: "x" })).toEqual({
      row: 10,
      column: 2,
      format: "LOG_MAGNITUDE",
    });
    expect(viewsShown({ count: 6, tiles: first.tiles }, true)).toHaveLength(4);
    expect(viewsShown({ count: 6, tiles: first.tiles }, false)).toHaveLength(6);
  });
});

it("settings of a network that were kept come back to the screen", () => {
  const view = {
    smoothing: 0.05,
    apertureHz: 1e6,
    change: { balanced: [1, 3, 2, 4], firstPart: 7, extensions: null },
    time: { row: 2, column: 2, mode: "STEP", shape: "CLEAN", velocityFactor: 0.7, gate: null },
    otherVswr: 2,
    cableMetres: 3,
  } as unknown as NetworkViewRequest;
  const s = settingOf(view);
  expect(s.balanced).toBe("13-24");
  expect(s.firstPart).toBe(7);
  expect(s.time).toMatchObject({ on: true, row: 2, mode: "STEP", gated: false });
  expect(settingOf({ ...view, time: null }).time?.on).toBe(false);
});

it("the nearest place is found at both ends and between", () => {
  expect([-5, 0.4, 0.6, 9].map((x) => nearest([0, 1, 2], x))).toEqual([0, 0, 1, 2]);
});

describe("past looks", () => {
  const look = (n: number) => [n];

  it("are the last ones, the newest first", () => {
    const past = new PastLooks();
    let got: ArrayLike<number>[] = [];
    for (let n = 0; n < 40; n++) {
      got = past.take(look(n), "grid", 16);
    }
    expect(got.map((l) => l[0])).toEqual(Array.from({ length: 16 }, (_, i) => 38 - i));
  });

  it("begin anew with another grid, and a look seen twice counts once", () => {
    const past = new PastLooks();
    const first = look(1);
    past.take(first, "a", 16);
    expect(past.take(first, "a", 16)).toEqual([]);
    expect(past.take(look(2), "a", 16)).toEqual([first]);
    expect(past.take(look(3), "b", 16)).toEqual([]);
  });

  it("of all reach back to the beginning, evenly thinned", () => {
    const past = new PastLooks();
    let got: ArrayLike<number>[] = [];
    for (let n = 0; n < 5000; n++) {
      got = past.take(look(n), "grid", ALL_LOOKS);
    }
    expect(got.length).toBeLessThanOrEqual(MOST_LOOKS);
    expect(got.length).toBeGreaterThan(MOST_LOOKS / 4);
    expect(got[got.length - 1][0]).toBeLessThan(200);
  });
});

it("peaks are walked downwards and begin again at the highest", () => {
  const values = [Number.NaN, 3, 1, 9, 2, 5, 5, 0, 7];
  const walk = [Number.POSITIVE_INFINITY];
  for (let i = 0; i < 5; i++) {
    walk.push(values[nextPeak(values, walk[walk.length - 1])]);
  }
  expect(walk.slice(1)).toEqual([9, 7, 5, 3, 9]);
  expect(highestOf(values)).toBe(3);
});
