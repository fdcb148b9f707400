import { formatEngineering } from "../../components/units";

/** What stands at one point: impedance, and the inductor or capacitor that has its reactance. */
export function impedanceWords(re: number, im: number, z0: number, hertz: number): string {
  const below = Math.max((1 - re) ** 2 + im * im, 1e-18);
  const r = (z0 * (1 - re * re - im * im)) / below;
  const exact = (z0 * 2 * im) / below;
  const x = Math.abs(exact) < 1e-6 * z0 ? 0 : exact;
  if (x === 0) {
    return `${Number(r.toPrecision(4))} + j0 \u03A9`;
  }
  const part =
    x >= 0
      ? formatEngineering(x / (2 * Math.PI * hertz), "H", 3)
      : formatEngineering(-1 / (2 * Math.PI * hertz * x), "F", 3);
  const sign = x < 0 ? "\u2212" : "+";
  return `${Number(r.toPrecision(4))} ${sign} j${Number(Math.abs(x).toPrecision(4))} \u03A9, ${part}`;
}
