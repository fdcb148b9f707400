import { expect, test } from "vitest";
import {
  intervalsChange,
  maskChange,
  maskOver,
  readIntervals,
  readMask,
  showIntervals,
  showMask,
} from "./waits";

const seconds = (text: string) => {
  const read = readIntervals(text);
  return "wrong" in read ? read.wrong : read.value.map((v) => Number(v.toPrecision(9)));
};

test("intervals are read as they are shown", () => {
  expect(seconds("3.1 ms")).toEqual([3.1e-3]);
  expect(seconds("1m, 2 ms;4e-3")).toEqual([1e-3, 2e-3, 4e-3]);
  expect(showIntervals([1e-3, 2e-3, 250e-6])).toBe("1 ms, 2 ms, 250 \u00B5s");
  expect(seconds(showIntervals([3.1e-3, 250e-6]))).toEqual([3.1e-3, 250e-6]);
  expect(seconds("any")).toEqual([]);
  expect(seconds("soon")).toContain("is no time");
  expect(seconds("1 ms,, 2 ms")).toContain("is no time");
  expect(seconds("-1 ms")).toContain("is no time");
});

test("a first interval brings how far it may be off, and only one can be broken", () => {
  const s = { intervalsWithinSeconds: 0, intervalsBroken: true };
  expect(intervalsChange(s, [5e-3])).toEqual({
    intervals: [5e-3],
    intervalsWithinSeconds: 1e-4,
    intervalsBroken: true,
  });
  expect(intervalsChange({ ...s, intervalsWithinSeconds: 1e-5 }, [5e-3, 1e-3])).toMatchObject({
    intervalsWithinSeconds: 1e-5,
    intervalsBroken: false,
  });
  expect(intervalsChange(s, []).intervals).toEqual([]);
});

test("points of a mask are read as they are shown", () => {
  const points = [
    { hz: 164.1e6, levelDb: -60 },
    { hz: 164.1e6, levelDb: -30.5 },
  ];
  expect(readMask("164.1M -60, 164.1 MHz -30.5 dBm")).toEqual({ value: points });
  expect(readMask(showMask(points))).toEqual({ value: points });
  expect(readMask("flat")).toEqual({ value: [] });
  expect(readMask("164.1M")).toHaveProperty("wrong");
  expect(readMask("here -60, there -60")).toHaveProperty("wrong");
});

test("the band goes along with the mask", () => {
  const points = [
    { hz: 1e8, levelDb: 0 },
    { hz: 1.2e8, levelDb: 0 },
  ];
  expect(maskChange(points)).toEqual({ mask: points, centreHz: 1.1e8, bandHz: 2e7 });
  expect(maskChange([])).toEqual({ mask: [] });
});

test("a mask over what is there lies over all of it, and has no more steps than it needs", () => {
  const x = Array.from({ length: 161 }, (_, i) => 1e6 + i * 1e3);
  const y = x.map((hz) => (Math.abs(hz - 1.08e6) < 6e3 ? -40.2 : -90));
  const mask = maskOver(x, y, 6);
  expect(mask.length).toBeLessThanOrEqual(6);
  expect(mask[0].hz).toBe(x[0]);
  expect(mask.at(-1)?.hz).toBe(x[160]);
  for (let i = 0; i < x.length; i++) {
    const allowed = Math.max(
      ...mask.slice(1).map((p, k) => (x[i] >= mask[k].hz && x[i] <= p.hz ? p.levelDb : -999)),
    );
    expect(allowed).toBeGreaterThanOrEqual(y[i] + 5.99);
  }
});
