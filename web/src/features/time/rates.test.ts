import { describe, expect, it } from "vitest";
import { readRates, writeRates } from "./rates";

describe("known rates", () => {
  it("are read as rates or as intervals", () => {
    expect(readRates("core clock = 26 MHz\n\n radio sleep = 3.1 ms")).toEqual([
      { name: "core clock", hertz: 26e6 },
      { name: "radio sleep", hertz: 1 / 3.1e-3 },
    ]);
  });

  it("come back as they were written", () => {
    const text = "core clock = 26 MHz\nradio sleep = 3.1 ms";
    expect(writeRates(readRates(text) as { name: string; hertz: number }[])).toBe(text);
  });

  it("say which line is wrong", () => {
    expect(readRates("radio sleep 3.1 ms")).toContain('"radio sleep 3.1 ms" is not understood');
    expect(readRates("a = 0 Hz")).toContain("not understood");
    expect(readRates("a = b")).toContain("not understood");
  });
});
