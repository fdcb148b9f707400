import { expect, it } from "vitest";
import { placeAt } from "./placeAt";

it("reads a place with where it is", () => {
  expect(placeAt("regulator, 20, 35 mm")).toEqual({
    place: "regulator",
    acrossMetres: 0.02,
    upMetres: 0.035,
  });
  expect(placeAt("flash")).toEqual({ place: "flash" });
});

it("says what is wrong", () => {
  for (const text of ["", "flash, 20", "flash, a, b", "flash, 1, 2, 3"]) {
    expect(placeAt(text)).toMatch(/^Type a name/);
  }
});
