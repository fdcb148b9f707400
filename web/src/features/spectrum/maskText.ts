import type { MaskSegment } from "../../api/client";
import { formatHertz, parseQuantity } from "../../components/units";

/** A mask as lines of text: from, to, measuring bandwidth, limits in dBc and absolute. */
export function maskToText(mask: MaskSegment[]): string {
  const db = (v: number | null) => (v === null ? "" : String(v));
  return mask
    .map((s) =>
      [
        formatHertz(s.fromHz),
        formatHertz(s.toHz),
        s.rbwHz === 0 ? "trace" : formatHertz(s.rbwHz),
        db(s.fromDbc),
        db(s.toDbc),
        db(s.fromAbsolute),
        db(s.toAbsolute),
      ]
        .join(", ")
        .replace(/(, )+$/, ""),
    )
    .join("\n");
}

/** Reads the same; throws a sentence that names the line. */
export function textToMask(text: string): MaskSegment[] {
  const mask: MaskSegment[] = [];
  text.split(/\r?\n/).forEach((line, index) => {
    const trimmed = line.trim();
    if (!trimmed || trimmed.startsWith("#") || /^(from|offset)/i.test(trimmed)) {
      return;
    }
    const cells = trimmed.split(/[,;\t]/).map((c) => c.trim());
    const hertz = (i: number, what: string) => {
      const value = parseQuantity(cells[i] ?? "", "Hz");
      if (value === null) {
        throw new Error(`Line ${index + 1}: "${cells[i] ?? ""}" is not ${what}.`);
      }
      return value;
    };
    const db = (i: number) => {
      const cell = cells[i] ?? "";
      const value =
        cell === "" ? null : Number(cell.replace(/dB[cm]?$/i, "").replace("\u2212", "-"));
      if (value !== null && !Number.isFinite(value)) {
        throw new Error(`Line ${index + 1}: "${cell}" is not a limit in dB.`);
      }
      return value;
    };
    const from = db(3);
    const absolute = db(5);
    mask.push({
      fromHz: hertz(0, "an offset"),
      toHz: hertz(1, "an offset"),
      rbwHz: /^(trace|)$/i.test(cells[2] ?? "") ? 0 : hertz(2, "a bandwidth"),
      fromDbc: from,
      toDbc: db(4) ?? from,
      fromAbsolute: absolute,
      toAbsolute: db(6) ?? absolute,
    });
  });
  return mask;
}
