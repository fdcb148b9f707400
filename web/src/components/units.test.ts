import { describe, expect, it } from "vitest";
import { formatEngineering, formatMeasuredSeconds, formatSeconds } from "./units";

describe("times", () => {
  it("take the prefix that suits", () => {
    expect(formatSeconds(3.1e-3)).toBe("3.1 ms");
    expect(formatSeconds(0)).toBe("0 s");
    expect(formatSeconds(0.99999999)).toBe("1 s");
    expect(formatSeconds(14.034e-6, 4)).toBe("14.03 \u00B5s");
    expect(formatSeconds(0.99999e-3, 4)).toBe("1 ms");
    expect(formatEngineering(0.99999e-3, "V")).toBe("1 mV");
  });

  it("are told to what their uncertainty leaves", () => {
    expect(formatMeasuredSeconds(3.100000032e-3, 1.3e-10)).toBe("3.10000003 ms");
    expect(formatMeasuredSeconds(14.0312e-6, 4e-8)).toBe("14.031 \u00B5s");
    expect(formatMeasuredSeconds(14.0312e-6, null)).toBe("14.03 \u00B5s");
    expect(formatMeasuredSeconds(0, 1e-9)).toBe("0 s");
  });
});
