import {
  formatEngineering,
  formatHertz,
  formatMoment,
  formatSeconds,
  signed,
  withMinus,
} from "./units";

/** A number of a table or reading with its unit left to the head, except where a prefix is needed. */
export const formatCell = (value: number, unit: string) => withMinus(written(value, unit));

function written(value: number, unit: string): string {
  if (unit === "Hz") {
    // A frequency is told to the millihertz, a width to what it deserves.
    return formatHertz(value, Math.abs(value) >= 1e6 ? 10 : 5);
  }
  if (unit === "s") {
    return formatSeconds(value, 4);
  }
  if (unit === "UTC") {
    return formatMoment(value);
  }
  if (unit === "V" || unit === "W") {
    return formatEngineering(value, unit);
  }
  if (unit === "%") {
    return String(Number(value.toPrecision(4)));
  }
  if (unit.startsWith("dB") || unit === "ppm") {
    return signed(value, 2);
  }
  return String(Number.isInteger(value) ? value : Number(value.toPrecision(4)));
}

/** Units that a formatted number carries itself. */
export function carriesUnit(unit: string): boolean {
  return ["Hz", "s", "V", "W"].includes(unit);
}
