/** Reading and writing of numbers with engineering units at the edge; SI inside. */

const PREFIX: Record<string, number> = {
  f: 1e-15,
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  "\u00B5": 1e-6,
  "\u03BC": 1e-6,
  m: 1e-3,
  "": 1,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};

/**
 * Reads "458.525M", "200 kHz", "-3 dBm", "1e6"; null if it is not a number with a unit. A number is
 * read whole or not at all, and "mhz", which may be milli or mega, is not read either.
 */
export function parseQuantity(text: string, unit: string): number | null {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*(.*?)\s*$/.exec(
    text.replace("\u03A9", "ohm").replace("\u2126", "ohm").replace("\u2212", "-"),
  );
  if (!match) {
    return null;
  }
  let suffix = match[2];
  if (unit && suffix.toLowerCase().endsWith(unit.toLowerCase())) {
    const written = suffix.slice(-unit.length);
    suffix = suffix.slice(0, suffix.length - unit.length).trim();
    if (suffix === "m" && written !== unit) {
      return null;
    }
  }
  if (unit.startsWith("dB") || unit === "" || unit === "ppm") {
    return suffix === "" ? Number(match[1]) : null;
  }
  const factor = PREFIX[suffix];
  return factor === undefined ? null : Number(match[1]) * factor;
}

/** A text whose negative numbers have a minus instead of a hyphen. */
export const withMinus = (text: string) => text.replace(/(^|[\s(])-(?=\.?\d)/g, "$1\u2212");

/** A frequency with the prefix that keeps 1 to 999 before the point. */
export function formatHertz(hertz: number, digits = 12): string {
  const size = Math.abs(hertz);
  const [scale, unit] =
    size >= 1e9
      ? [1e9, "GHz"]
      : size >= 1e6
        ? [1e6, "MHz"]
        : size >= 1e3
          ? [1e3, "kHz"]
          : [1, "Hz"];
  const text = Number((hertz / scale).toPrecision(digits)).toString();
  return `${text} ${unit}`;
}

const ENGINEERING: [number, string][] = [
  [1e9, "G"],
  [1e6, "M"],
  [1e3, "k"],
  [1, ""],
  [1e-3, "m"],
  [1e-6, "\u00B5"],
  [1e-9, "n"],
  [1e-12, "p"],
  [1e-15, "f"],
];

/** A number with the prefix that keeps 1 to 999 before the point, such as "0.8912 V" as "891.2 mV". */
export function formatEngineering(value: number, unit: string, digits = 4): string {
  if (value === 0) {
    return `0 ${unit}`;
  }
  // What rounds up to 1,000 of one prefix is 1 of the next.
  const size = Math.abs(Number(value.toPrecision(digits)));
  const [scale, prefix] = ENGINEERING.find(([s]) => size >= s * 0.9999999) ?? [1e-18, "a"];
  return `${Number((value / scale).toPrecision(digits))} ${prefix}${unit}`;
}

/** A level with its unit; what is not in decibels gets a prefix. */
export function formatLevel(level: number, unit: string): string {
  return unit.startsWith("dB") || unit === ""
    ? `${signed(level, 2)} ${unit}`
    : formatEngineering(level, unit);
}

/** How far one level lies over another, in dB whatever they are in. */
export function levelRatioDb(a: number, b: number, unit: string): number {
  if (unit === "V") {
    return 20 * Math.log10(a / b);
  }
  return unit === "W" ? 10 * Math.log10(a / b) : a - b;
}

const SECONDS: [number, string][] = [
  [1, "s"],
  [1e-3, "ms"],
  [1e-6, "\u00B5s"],
  [1e-9, "ns"],
  [1e-12, "ps"],
];

const secondsUnit = (seconds: number): [number, string] =>
  seconds === 0
    ? [1, "s"]
    : (SECONDS.find(([s]) => Math.abs(seconds) >= s * 0.9999999) ?? [1e-15, "fs"]);

/** A time with its prefix. */
export function formatSeconds(seconds: number, digits = 3): string {
  const [scale, unit] = secondsUnit(Number(seconds.toPrecision(digits)));
  return `${Number((seconds / scale).toPrecision(digits))} ${unit}`;
}

/** A time to the digits that its uncertainty leaves: "3.1000000 ms" of 130 ps. */
export function formatMeasuredSeconds(seconds: number, uncertainty: number | null): string {
  const [scale, unit] = secondsUnit(seconds);
  return uncertainty && seconds !== 0
    ? `${(seconds / scale).toFixed(decimalsFor(uncertainty / scale, 8))} ${unit}`
    : formatSeconds(seconds, 4);
}

const iso = (seconds: number) => new Date(Math.round(1000 * seconds)).toISOString();

/** A moment with its date, UTC: "2026-09-21 14:05:10". */
export const formatMoment = (seconds: number) => iso(seconds).slice(0, 19).replace("T", " ");

/**
 * A time of day, UTC, as short as times that lie a step apart allow; midnight is written as its
 * date.
 */
export function formatClock(seconds: number, step: number): string {
  const text = iso(seconds);
  if (step >= 86_400 || (step >= 60 && text.slice(11, 19) === "00:00:00")) {
    return text.slice(5, 10);
  }
  return text.slice(11, step >= 60 ? 16 : step >= 1 ? 19 : 23);
}

/** "+27.0" with a real minus sign. */
export function signed(value: number, digits = 1): string {
  const text = Math.abs(value).toFixed(digits);
  return Number(text) === 0 ? text : `${value < 0 ? "\u2212" : "+"}${text}`;
}

/** Decimals that a number deserves with its uncertainty. */
export function decimalsFor(uncertainty: number | null, most: number): number {
  if (uncertainty === null || !(uncertainty > 0)) {
    return Math.min(1, most);
  }
  return Math.max(0, Math.min(most, 1 - Math.floor(Math.log10(uncertainty))));
}

/** Groups thousands with thin spaces: 458 525 871.2 */
export function grouped(value: number, decimals: number): string {
  const [whole, fraction] = Math.abs(value).toFixed(decimals).split(".");
  const spaced = whole.replace(/\B(?=(\d{3})+$)/g, "\u2009");
  return (value < 0 ? "\u2212" : "") + (fraction ? `${spaced}.${fraction}` : spaced);
}

/** The next value of 1, 2, 5 x 10^n up or down. */
export function step125(value: number, up: boolean): number {
  const exponent = Math.floor(Math.log10(value) + 1e-9);
  const scale = 10 ** exponent;
  const mantissa = value / scale;
  const steps = up ? [1, 2, 5, 10] : [0.5, 1, 2, 5];
  const next = up
    ? steps.find((s) => s > mantissa * 1.0001)
    : steps.reverse().find((s) => s < mantissa * 0.9999);
  return Number(((next ?? 1) * scale).toPrecision(6));
}
