import { expect, test } from "vitest";
import { BESIDE, besideOf, besideSettings } from "./beside";
import { readBand, showBand } from "./useBeside";

test("what a tile shows of the same samples is a kind and a part of it", () => {
  expect(besideOf("beside.bursts.table:bursts")).toEqual({ kind: "bursts", part: "table:bursts" });
  expect(besideOf("spectrum")).toBeNull();
  expect(besideOf("beside.bursts")).toBeNull();
  expect(BESIDE.every(({ value }) => besideOf(value) !== null)).toBe(true);
});

test("a band that is drawn is for what is looked at in one band; the rest shows the span", () => {
  const band: [number, number] = [458e6, 459e6];
  const span: [number, number] = [450e6, 470e6];
  expect(besideSettings("amplitude", { band, span })).toEqual({ centreHz: 458.5e6, bandHz: 1e6 });
  expect(besideSettings("amplitude", { band: null, span })).toEqual({});
  expect(besideSettings("density", { band, span })).toEqual({ centreHz: 460e6, spanHz: 20e6 });
  expect(besideSettings("density", { band, span: null })).toEqual({});
});

test("a band is read as it is shown", () => {
  const band: [number, number] = [458.5e6, 458.55e6];
  expect(readBand("458.5M 458.55M")).toEqual({ value: band });
  expect(readBand(showBand(band))).toEqual({ value: band });
  expect(readBand("whole")).toEqual({ value: null });
  for (const wrong of ["458.5M", "459M 458M", "here there", "1M 2M 3M"]) {
    expect(readBand(wrong)).toHaveProperty("wrong");
  }
});
