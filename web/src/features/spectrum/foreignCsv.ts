import type { PlotCurve } from "../../components/plotTypes";
import { parseQuantity } from "../../components/units";

const SCALE: [RegExp, number][] = [
  [/ghz/i, 1e9],
  [/mhz/i, 1e6],
  [/khz/i, 1e3],
];

/**
 * Reads a trace from elsewhere: frequency and level are the first two columns, split by semicolon or
 * tab, or the only two, split by comma. Numbers have a decimal point: a comma in one is refused, never taken for a split. A heading may name the unit of the frequency. Throws a sentence that names the line.
 */
export function readForeignCsv(name: string, text: string): PlotCurve {
  let unit = 1;
  const x: number[] = [];
  const y: number[] = [];
  text.split(/\r?\n/).forEach((line, index) => {
    const trimmed = line.trim();
    if (!trimmed || trimmed.startsWith("#")) {
      return;
    }
    const byComma = !/[;\t]/.test(trimmed);
    const cells = trimmed.split(byComma ? "," : /[;\t]/);
    const [first, second] = cells.map((c) => c.trim().replace(/^"|"$/g, ""));
    const hertz = parseQuantity(first ?? "", "Hz");
    const level = Number((second ?? "").replace(/\s*dB\w*$/i, "").replace("\u2212", "-"));
    if (hertz === null || second === undefined || second === "" || !Number.isFinite(level)) {
      if (x.length === 0 && !/^[+-]?[\d.]/.test(first ?? "")) {
        unit = SCALE.find(([word]) => word.test(first))?.[1] ?? 1;
        return; // the heading
      }
      throw new Error(
        `${name}, line ${index + 1}: needs a frequency and a level in dB, split by a comma.`,
      );
    }
    if (byComma && cells.length > 2) {
      throw new Error(
        `${name}, line ${index + 1}: has ${cells.length} columns where frequency and level are two. Write numbers with a decimal point.`,
      );
    }
    x.push(hertz * unit);
    y.push(level);
  });
  if (x.length < 2) {
    throw new Error(`${name} has no rows of frequency and level.`);
  }
  return { label: name, x, y, colour: 4 };
}
