import { expect, test } from "vitest";
import { Line, lineOf } from "./line";

/** A request that is answered when it is told to. */
function asked(line: Line, name: string, seen: string[]) {
  let answer = () => {};
  let refuse = () => {};
  const waits = new Promise<void>((yes, no) => {
    answer = yes;
    refuse = () => no(new Error(name));
  });
  waits.catch(() => undefined);
  const done = line.after(async () => {
    seen.push(`${name} sent`);
    await waits;
    seen.push(`${name} done`);
  });
  return { answer, refuse, done };
}

/** A level and an output, asked for in this order, and what became of both. */
function two() {
  const line = new Line();
  const seen: string[] = [];
  return { level: asked(line, "level", seen), output: asked(line, "output", seen), seen };
}

test("the second waits for the first, even if it could be answered sooner", async () => {
  const { level, output, seen } = two();
  output.answer();
  level.answer();
  await output.done;
  expect(seen).toEqual(["level sent", "level done", "output sent", "output done"]);
});

test("what is refused does not hold up what follows, and says so to its own asker alone", async () => {
  const { level, output, seen } = two();
  level.refuse();
  output.answer();
  await expect(level.done).rejects.toThrow("level");
  await output.done;
  expect(seen).toEqual(["level sent", "output sent", "output done"]);
});

test("one address has one line", () => {
  expect(lineOf("/api/instruments/1")).toBe(lineOf("/api/instruments/1"));
  expect(lineOf("/api/instruments/1")).not.toBe(lineOf("/api/instruments/2"));
});
