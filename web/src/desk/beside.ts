import { createContext, useContext } from "react";

/** The samples of what is measured can be looked at in other ways, too. */
export interface Beside {
  /** Of the measurement that took them. */
  url: string;
  /** The newest look at them; another one is other samples. */
  look: object | null;
  /** Band that was drawn in a spectrum; null if none was. */
  band: [number, number] | null;
  /** What is shown over frequency; null for all that the samples hold. */
  span: [number, number] | null;
  /** Draws a band, or takes it away. */
  draw: (band: [number, number] | null) => unknown;
}

export const BesideContext = createContext<Beside | undefined>(undefined);

/** What else can be seen of the same samples: a kind of measurement, and a part of what it shows. */
const WHATS: [string, string][] = [
  ["amplitude.amplitude", "Level over time"],
  ["amplitude.frequency", "Frequency over time"],
  ["amplitude.phase", "Phase over time"],
  ["density.density", "Density"],
  ["density.history", "History"],
  ["spectrogram.spectrogram", "Spectrogram"],
  ["bursts.table:bursts", "Bursts"],
  ["channels.table:channels", "Channels"],
];

const MARK = "beside.";

export const BESIDE = WHATS.map(([value, label]) => ({ value: MARK + value, label }));

/** Kind and part of what a tile shows of the same samples; null if it shows what is measured. */
export function besideOf(what: string): { kind: string; part: string } | null {
  const dot = what.indexOf(".", MARK.length);
  return what.startsWith(MARK) && dot > 0
    ? { kind: what.slice(MARK.length, dot), part: what.slice(dot + 1) }
    : null;
}

/** True for what is looked at in one band; the rest is over frequency and shows where that is. */
export const inBand = (kind: string) => kind === "amplitude" || kind === "bursts";

/** Settings of a kind: in the band or over the span; without them as wide as is good. */
export function besideSettings(kind: string, { band, span }: Pick<Beside, "band" | "span">) {
  const [within, width] = inBand(kind) ? [band, "bandHz"] : [span, "spanHz"];
  return within ? { centreHz: (within[0] + within[1]) / 2, [width]: within[1] - within[0] } : {};
}

/** What drawing a band on this axis does, and the one that is drawn. */
export function useDrawnBand(axis: { quantity: string; unit: string }) {
  const beside = useContext(BesideContext);
  const fits = axis.quantity === "Frequency" && axis.unit === "Hz";
  return fits ? beside : undefined;
}
