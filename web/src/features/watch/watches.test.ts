import { describe, expect, it } from "vitest";
import type { Watch } from "../../api/client";
import { unbroken } from "../../components/plotTypes";
import { formatClock, formatMoment } from "../../components/units";
import { columnsOf } from "./WatchForm";
import { queryOf, stretchOf } from "./watches";

const began = Date.UTC(2026, 8, 21);
const watch = { beganMillis: began, endedMillis: began + 86_400_000 } as Watch;

describe("what is shown of a watch", () => {
  it("is all of it, the last of it, or what was zoomed into", () => {
    expect(stretchOf(watch, "all", undefined)).toEqual({});
    expect(stretchOf(watch, "3600", undefined)).toEqual({ from: began / 1000 + 82_800 });
    expect(stretchOf(watch, "604800", undefined)).toEqual({ from: began / 1000 });
    expect(stretchOf(watch, "3600", [5, 9])).toEqual({ from: 5, to: 9 });
  });

  it("is asked for in whole milliseconds, and never less than was wanted", () => {
    expect(queryOf({ from: 5.0004, to: 9.0004 })).toBe("fromMillis=5000&toMillis=9001");
    expect(queryOf({ from: 5 })).toBe("fromMillis=5000");
    expect(queryOf({})).toBe("");
  });
});

describe("columns of tables", () => {
  it("are watched in all their rows", () => {
    const readings = [
      "level",
      "table:channels:11:Share of time",
      "table:channels:12:Share of time",
    ];
    expect(columnsOf(readings.map((id) => ({ id })))).toEqual([
      {
        key: "each:channels, Share of time",
        label: "all 2 of channels, Share of time",
        ids: readings.slice(1),
      },
    ]);
  });
});

describe("a clock", () => {
  const noon = began / 1000 + 43_200;

  it("is written as short as its steps allow", () => {
    expect(formatClock(noon, 3600)).toBe("12:00");
    expect(formatClock(noon + 5, 1)).toBe("12:00:05");
    expect(formatClock(noon + 0.25, 0.05)).toBe("12:00:00.250");
    expect(formatClock(noon, 86_400)).toBe("09-21");
    expect(formatMoment(noon + 61)).toBe("2026-09-21 12:01:01");
  });

  it("writes midnight as its date", () => {
    expect(formatClock(noon + 43_200, 3600)).toBe("09-22");
  });
});

describe("a curve with gaps", () => {
  it("comes in pieces", () => {
    const x = [0, 1, 2, 3, 4, 5];
    const y = [1, 2, Number.NaN, Number.NaN, 3, Number.NaN];
    expect(unbroken({ label: "", x, y })).toEqual([
      { x: [0, 1], y: [1, 2] },
      { x: [4], y: [3] },
    ]);
    expect(unbroken({ label: "", x: [0], y: [1] })).toEqual([{ x: [0], y: [1] }]);
  });
});
