import { describe, expect, it } from "vitest";
import { formatHertz, parseQuantity, withMinus } from "../components/units";
import {
  bandsText,
  limitsText,
  parseBands,
  parseElements,
  parseLimits,
} from "../features/network/asksText";
import { readForeignCsv } from "../features/spectrum/foreignCsv";
import { maskToText, textToMask } from "../features/spectrum/maskText";

describe("quantities", () => {
  it("reads prefixes, units and signs", () => {
    expect(parseQuantity("458.525M", "Hz")).toBeCloseTo(458.525e6, 0);
    expect(parseQuantity("200 kHz", "Hz")).toBeCloseTo(200e3, 3);
    expect(parseQuantity("\u22123 dBm", "dBm")).toBe(-3);
    expect(withMinus("-3.5 dB (-40 to -.2), 802.11-2020, i1-2")).toBe(
      "\u22123.5 dB (\u221240 to \u2212.2), 802.11-2020, i1-2",
    );
    expect(parseQuantity("75 \u03A9", "ohm")).toBe(75);
    expect(parseQuantity("185p", "s")).toBeCloseTo(185e-12, 20);
  });

  it("refuses what is no quantity", () => {
    for (const text of ["", "M", "12 parsecs", "1..2", "sixty"]) {
      expect(parseQuantity(text, "Hz")).toBeNull();
    }
    expect(parseQuantity("3M", "dBm")).toBeNull();
    // Milli or mega: nobody knows.
    expect(parseQuantity("458.525mhz", "Hz")).toBeNull();
    expect(parseQuantity("458.525mHz", "Hz")).toBeCloseTo(0.458525, 9);
    expect(parseQuantity("458.525MHZ", "Hz")).toBeCloseTo(458.525e6, 0);
    expect(parseQuantity("458,5", "Hz")).toBeNull();
    // Micro sign and Greek mu.
    expect(parseQuantity("3 \u00B5s", "s")).toBeCloseTo(3e-6, 12);
    expect(parseQuantity("3 \u03BCs", "s")).toBeCloseTo(3e-6, 12);
  });

  it("writes what it can read again", () => {
    for (const hertz of [0.5, 999, 1e3, 458.525e6, 2.4e9, -1.25e6]) {
      expect(parseQuantity(formatHertz(hertz), "Hz")).toBeCloseTo(hertz, 3);
    }
  });
});

describe("limits and bands of a job", () => {
  const text =
    "pass band: S21 dB at least -1.8 from 456.9 MHz to 460.1 MHz for cavity filter\n" +
    "S11 VSWR at most 1.5 from 1 MHz to 30 MHz";

  it("keeps part, slope and side through text and back", () => {
    const { limits, wrong } = parseLimits(text);
    expect(wrong).toBe("");
    expect(limits.map((l) => l.part)).toEqual(["cavity filter", null]);
    expect(limits.map((l) => l.upper)).toEqual([false, true]);
    expect(parseLimits(limitsText(limits)).limits).toEqual(limits);
    const [slope] = parseLimits("S21 dB at most -30..-40 from 464M to 468M").limits;
    expect([slope.fromValue, slope.toValue]).toEqual([-30, -40]);
    expect(parseLimits(limitsText([slope])).limits).toEqual([slope]);
  });

  it("names the line that is wrong", () => {
    expect(parseLimits(`${text}\nnonsense`).wrong).toContain("Line 3");
    expect(parseLimits("S21 dB at least -0.5 from 457M to high").wrong).toContain("number");
    expect(parseBands("x 1 to 2").wrong).toContain("line 1");
  });

  it("keeps bands", () => {
    const { bands } = parseBands("buoys: 457M to 460M");
    expect(bands).toEqual([{ name: "buoys", fromHz: 457e6, toHz: 460e6 }]);
    expect(parseBands(bandsText(bands)).bands).toEqual(bands);
  });
});

describe("elements of a match", () => {
  it("reads places, parts and values", () => {
    const { elements } = parseElements("series L 12n, shunt C 3.3p, line 40p");
    expect(elements.map((e) => [e.place, e.part])).toEqual([
      ["SERIES", "INDUCTOR"],
      ["SHUNT", "CAPACITOR"],
      ["SERIES", "LINE"],
    ]);
    expect(elements[0].value).toBeCloseTo(12e-9, 15);
  });

  it("refuses a part without a place, and values that are none", () => {
    for (const text of ["L 12n", "shunt Q 3", "series C 0"]) {
      expect(parseElements(text).elements).toEqual([]);
      expect(parseElements(text).wrong).not.toBe("");
    }
  });
});

describe("masks", () => {
  it("keeps segments through text and back", () => {
    const mask = textToMask("30k, 60k, trace, -20, -30\n60k, 150k, 10k, , , -36");
    expect(mask).toHaveLength(2);
    expect(mask[0]).toMatchObject({ rbwHz: 0, fromDbc: -20, toDbc: -30, fromAbsolute: null });
    expect(mask[1]).toMatchObject({ fromDbc: null, fromAbsolute: -36, toAbsolute: -36 });
    expect(textToMask(maskToText(mask))).toEqual(mask);
  });

  it("names the line and the cell", () => {
    expect(() => textToMask("30k, 60k, trace, -30, x")).toThrow('Line 1: "x"');
  });
});

describe("traces from elsewhere", () => {
  const read = (text: string) => readForeignCsv("a.csv", text);

  it("takes frequency and level, whatever splits them", () => {
    const made = ["MHz,dBm\n458,-3\n459,-4", "458M;-3;12\n459M;-4;13", "458M\t-3 dBm\n459M\t-4"];
    for (const text of made) {
      expect(read(text).x).toEqual([458e6, 459e6]);
      expect(Array.from(read(text).y)).toEqual([-3, -4]);
    }
  });

  it("never takes a decimal comma for a split, and names the line", () => {
    expect(() => read("458,5;-3,1\n459,5;-4,1")).toThrow(/line 1/);
    expect(() => read("458,5,-3,1\n459,5,-4,1")).toThrow(/line 1: has 4 columns/);
    expect(() => read("458mhz,-3\n459mhz,-4")).toThrow(/line 1/);
    expect(() => read("458M,-3\n459M,low")).toThrow(/line 2/);
  });
});
