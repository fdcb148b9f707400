import type { MatchElement, NetworkBand, NetworkLimit } from "../../api/client";
import { formatHertz, parseQuantity } from "../../components/units";

/** Words of the formats that a limit can bound, with the server's names. */
const BOUNDS: Record<string, [NetworkLimit["format"], string]> = {
  db: ["LOG_MAGNITUDE", "dB"],
  vswr: ["VSWR", ""],
  "return loss": ["RETURN_LOSS", ""],
  phase: ["PHASE", ""],
  delay: ["GROUP_DELAY", "s"],
  impedance: ["IMPEDANCE", "ohm"],
};

/**
 * One limit a line: "pass band: S21 dB at least -1.8 from 456.9M to 460.1M for cavity filter"; a value
 * may slope as "-40..-60", and the part may be left out.
 */
export function parseLimits(text: string): { limits: NetworkLimit[]; wrong: string } {
  const limits: NetworkLimit[] = [];
  for (const [i, raw] of text.split("\n").entries()) {
    const line = raw.trim();
    if (!line) {
      continue;
    }
    const m =
      /^(?:(.+?):\s*)?S(\d)(\d)\s+(dB|VSWR|return loss|phase|delay|impedance)\s+(at least|at most)\s+(\S+)\s+from\s+(.+?)\s+to\s+(.+?)(?:\s+for\s+(.+))?$/i.exec(
        line,
      );
    const wrong = (why: string) => ({ limits: [], wrong: `Line ${i + 1}: ${why}` });
    if (!m) {
      return wrong('write it as "pass band: S21 dB at least -1.8 from 456.9M to 460.1M".');
    }
    const [format, unit] = BOUNDS[m[4].toLowerCase()];
    const [a, b = a] = m[6].split("..");
    const values = [parseQuantity(a, unit), parseQuantity(b, unit)];
    const ends = [parseQuantity(m[7], "Hz"), parseQuantity(m[8], "Hz")];
    if (values.includes(null) || ends.includes(null)) {
      return wrong("a number cannot be read. Write frequencies as 458.5M.");
    }
    limits.push({
      part: m[9] ?? null,
      name: m[1] ?? "",
      row: Number(m[2]),
      column: Number(m[3]),
      format,
      upper: m[5].toLowerCase() === "at most",
      fromValue: values[0] as number,
      toValue: values[1] as number,
      fromHz: ends[0] as number,
      toHz: ends[1] as number,
    });
  }
  return { limits, wrong: "" };
}

export function limitsText(limits: NetworkLimit[]): string {
  const word = (f: string) => Object.keys(BOUNDS).find((k) => BOUNDS[k][0] === f) ?? "db";
  return limits
    .map((l) => {
      const value = l.fromValue === l.toValue ? `${l.fromValue}` : `${l.fromValue}..${l.toValue}`;
      const name = l.name ? `${l.name}: ` : "";
      const what = word(l.format).replace("db", "dB").replace("vswr", "VSWR");
      const side = l.upper ? "at most" : "at least";
      return `${name}S${l.row}${l.column} ${what} ${side} ${value} from ${formatHertz(l.fromHz)} to ${formatHertz(l.toHz)}${l.part ? ` for ${l.part}` : ""}`;
    })
    .join("\n");
}

/** One band a line: "buoys: 457M to 460M". */
export function parseBands(text: string): { bands: NetworkBand[]; wrong: string } {
  const bands: NetworkBand[] = [];
  for (const [i, raw] of text.split("\n").entries()) {
    const line = raw.trim();
    if (!line) {
      continue;
    }
    const m = /^(.+?):\s*(.+?)\s+to\s+(.+)$/.exec(line);
    const from = m && parseQuantity(m[2], "Hz");
    const to = m && parseQuantity(m[3], "Hz");
    if (!m || from === null || to === null) {
      return { bands: [], wrong: `Band, line ${i + 1}: write it as "buoys: 457M to 460M".` };
    }
    bands.push({ name: m[1], fromHz: from, toHz: to });
  }
  return { bands, wrong: "" };
}

export const bandsText = (bands: NetworkBand[]) =>
  bands.map((b) => `${b.name}: ${formatHertz(b.fromHz)} to ${formatHertz(b.toHz)}`).join("\n");

const PARTS: Record<string, [MatchElement["part"], string]> = {
  r: ["RESISTOR", "ohm"],
  l: ["INDUCTOR", "H"],
  c: ["CAPACITOR", "F"],
  line: ["LINE", "s"],
};

/** "series L 12n, shunt C 3.3p, line 40p": the element at the part first. */
export function parseElements(text: string): { elements: MatchElement[]; wrong: string } {
  const elements: MatchElement[] = [];
  for (const word of text.split(",").map((w) => w.trim())) {
    if (!word) {
      continue;
    }
    const m = /^(?:(series|shunt)\s+)?(r|l|c|line)\s+(.+)$/i.exec(word);
    const [part, unit] = m ? PARTS[m[2].toLowerCase()] : (["LINE", ""] as const);
    const value = m && parseQuantity(m[3], unit);
    if (!m || (!m[1] && part !== "LINE") || value === null || !(value > 0)) {
      return { elements: [], wrong: 'Write elements as "series L 12n, shunt C 3.3p, line 40p".' };
    }
    elements.push({
      place: m[1]?.toLowerCase() === "shunt" ? "SHUNT" : "SERIES",
      part,
      value,
    });
  }
  return { elements, wrong: "" };
}
