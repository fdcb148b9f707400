import { expect, test } from "vitest";
import type { Outcome } from "../../api/client";
import { burst } from "./ring";

const cell = (value: number) => ({ value, text: "" });
const outcome = {
  tables: [{ id: "bursts", rows: [{ cells: [cell(0.25), cell(14e-6), cell(3.1e-3)] }] }],
} as unknown as Outcome;

test("a burst is where the table says", () => {
  expect(burst(outcome, 1)).toMatchObject({ fromSeconds: 0.25, seconds: 14e-6 });
});

test("a burst that is not there is a sentence", () => {
  expect(burst(outcome, 2)).toBe("There are bursts 1 to 1.");
  expect(burst(undefined, 1)).toBe("There is no burst yet.");
});
