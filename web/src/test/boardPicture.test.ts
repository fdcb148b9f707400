import { describe, expect, it } from "vitest";
import { freshName, placeNear } from "../desk/board";

describe("a click on a board", () => {
  const places = [
    { name: "flash", across: 0.02, up: 0.015 },
    { name: "clock", across: 0.024, up: 0.015 },
  ];

  it("means the nearest place that is there", () => {
    expect(placeNear(places, 20.5, 15)?.name).toBe("flash");
    expect(placeNear(places, 22.5, 15)?.name).toBe("clock");
    expect(placeNear(places, 28, 15)).toBeUndefined();
    expect(placeNear([], 1, 1)).toBeUndefined();
  });

  it("makes a name that none of them has", () => {
    expect(freshName([])).toBe("place 1");
    expect(freshName(["flash", "place 3"])).toBe("place 4");
    expect(freshName(["flash", "clock"])).toBe("place 3");
  });
});
