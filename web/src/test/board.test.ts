import { expect, it } from "vitest";
import { labelsOf } from "../desk/BoardMap";

it("writes beside each place where nothing is hidden by it", () => {
  const alone = labelsOf([{ x: 50, y: 50, letters: 8 }], 100);
  expect(alone[0].anchor).toBe("start");
  // A second one just right of the first: what is written goes to other sides.
  const two = labelsOf(
    [
      { x: 50, y: 50, letters: 8 },
      { x: 60, y: 50, letters: 8 },
    ],
    100,
  );
  expect(two[0].anchor).toBe("end");
  expect(two[1].anchor).toBe("start");
  // Between two neighbours it goes below.
  const three = labelsOf(
    [
      { x: 40, y: 50, letters: 2 },
      { x: 60, y: 50, letters: 2 },
      { x: 50, y: 50, letters: 8 },
    ],
    100,
  );
  expect(three[2].anchor).toBe("middle");
  expect(three[2].y).toBeGreaterThan(50);
  // At the edge of the board it stays on it.
  expect(labelsOf([{ x: 98, y: 50, letters: 8 }], 100)[0].anchor).toBe("end");
});
