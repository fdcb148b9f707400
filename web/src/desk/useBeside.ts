import { useMemo, useState } from "react";
import { useCommands } from "../app/commands";
import { formatHertz, parseQuantity } from "../components/units";
import type { Beside } from "./beside";

type Band = [number, number];

/** Reads a band, such as "458.5M 458.55M"; null is all of it. */
export function readBand(text: string): { value: Band | null } | { wrong: string } {
  if (/^(whole|all|)$/i.test(text.trim())) {
    return { value: null };
  }
  const ends = text
    .trim()
    .split(/\s*(?:\bto\b|,)\s*|\s+(?=[\d.+-])/)
    .map((part) => parseQuantity(part, "Hz"));
  const [low, high] = ends;
  return ends.length === 2 && typeof low === "number" && typeof high === "number" && high > low
    ? { value: [low, high] }
    : { wrong: `"${text}" is no band. Write it from and to, as 458.5M 458.55M, or whole.` };
}

export const showBand = ([low, high]: Band) => `${formatHertz(low, 7)} to ${formatHertz(high, 7)}`;

/**
 * What tiles need to look at the samples of a measurement in other ways.
 *
 * @param own span of the measurement, and what a band that is drawn does, where it has such
 */
export function useBeside(
  url: string,
  look: object | null,
  own: { span?: Band; take?: (band: Band) => unknown } = {},
): Beside {
  const { take } = own;
  const [low, high] = own.span ?? [];
  const [drawn, setDrawn] = useState<{ url: string; band: Band | null }>({ url, band: null });
  // Another source is at another frequency.
  const band = drawn.url === url ? drawn.band : null;
  useCommands([
    {
      name: "draw band",
      argument: "<Hz> <Hz>",
      hint: "that is looked at over time, or whole",
      run: (text) => {
        const read = readBand(text);
        if ("wrong" in read) {
          return read.wrong;
        }
        draw(read.value);
        return "";
      },
    },
  ]);
  const draw = (wanted: Band | null) =>
    wanted && take ? take(wanted) : setDrawn({ url, band: wanted });
  // biome-ignore lint/correctness/useExhaustiveDependencies: draw is as old as take
  return useMemo(() => {
    const span: Band | null = low === undefined || high === undefined ? null : [low, high];
    return { url, look, band, span, draw };
  }, [url, look, band, low, high, take]);
}
