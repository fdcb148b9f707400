import type { KnownRate } from "../../api/client";
import { formatEngineering, formatHertz, parseQuantity } from "../../components/units";

/** Slow ones are written as intervals. */
const SLOW_HZ = 1000;

/** "radio sleep = 3.1 ms", one a line. */
export function writeRates(rates: KnownRate[]): string {
  return rates
    .map(
      ({ name, hertz }) =>
        `${name} = ${hertz < SLOW_HZ ? formatEngineering(1 / hertz, "s", 9) : formatHertz(hertz)}`,
    )
    .join("\n");
}

/** What is written, or a sentence of what is wrong with it. */
export function readRates(text: string): KnownRate[] | string {
  const rates: KnownRate[] = [];
  for (const line of text.split("\n").filter((l) => l.trim() !== "")) {
    const at = line.lastIndexOf("=");
    const value = line.slice(at + 1).trim();
    const isTime = /s$/.test(value);
    const number = at < 1 ? null : parseQuantity(value, isTime ? "s" : "Hz");
    if (number === null || !(number > 0)) {
      return `"${line.trim()}" is not understood. Write a name, = and a rate or an interval: radio sleep = 3.1 ms.`;
    }
    rates.push({ name: line.slice(0, at).trim(), hertz: isTime ? 1 / number : number });
  }
  return rates;
}
