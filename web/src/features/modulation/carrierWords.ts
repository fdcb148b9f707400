import type { CarrierDescription } from "../../api/client";

/** Formats by the key that the server knows them under. */
export const FORMATS: Record<string, string> = {
  ook: "OOK",
  bpsk: "BPSK",
  qpsk: "QPSK",
  "offset-qpsk": "offset QPSK",
  "pi4-dqpsk": "π/4-DQPSK",
  psk8: "8PSK",
  d8psk: "D8PSK",
  apsk16: "16-APSK",
  apsk32: "32-APSK",
  qam16: "16-QAM",
  qam32: "32-QAM",
  qam64: "64-QAM",
  qam128: "128-QAM",
  qam256: "256-QAM",
  qam512: "512-QAM",
  qam1024: "1024-QAM",
  qam4096: "4096-QAM",
  fsk2: "2-FSK",
  fsk4: "4-FSK",
  fsk8: "8-FSK",
  msk: "MSK",
  gmsk: "GMSK",
};

/** Deviation to begin with, in symbol rates, of formats whose frequency is keyed by a free amount. */
const DEVIATIONS: Record<string, number> = { fsk2: 0.5, fsk4: 0.75, fsk8: 1.75 };

export const hasDeviation = (format: string) => format in DEVIATIONS;

/** Symbols are frequencies. */
export const keyed = (format: string) => hasDeviation(format) || format.endsWith("msk");

/** A description with a change, and with what the change needs: a format has filters that suit it. */
export function described(
  now: CarrierDescription,
  part: Partial<CarrierDescription>,
): CarrierDescription {
  const next = { ...now, ...part };
  const { format } = next;
  if (!part.format || format === now.format) {
    return next;
  }
  next.mapping = null;
  const suits =
    format === "gmsk"
      ? next.filter === "gaussian"
      : format === "msk"
        ? next.filter === "rectangular"
        : !keyed(format) === !keyed(now.format);
  if (!suits && !part.filter) {
    next.filter =
      format === "gmsk" ? "gaussian" : keyed(format) ? "rectangular" : "root-raised-cosine";
    next.filterParameter = keyed(format) ? 0.5 : 0.35;
  }
  next.deviationHz = hasDeviation(format)
    ? (part.deviationHz ?? DEVIATIONS[format] * next.symbolRateHz)
    : null;
  return next;
}

export const FILTERS: Record<string, string> = {
  "root-raised-cosine": "root-raised cosine",
  "raised-cosine": "raised cosine",
  gaussian: "Gaussian",
  "half-sine": "half sine",
  rectangular: "rectangle",
  none: "no filter",
};

/** Filters that a number belongs to. */
export const hasParameter = (filter: string) =>
  ["root-raised-cosine", "raised-cosine", "gaussian"].includes(filter);

/** A number that suits a filter to begin with. */
export const firstParameter = (filter: string, now: number) =>
  filter === "gaussian" ? 0.5 : hasParameter(filter) && !(now > 0 && now <= 1) ? 0.35 : now;

export const SEQUENCES: Record<string, string> = {
  "9": "PN9",
  "11": "PN11",
  "15": "PN15",
  "20": "PN20",
  "23": "PN23",
  "31": "PN31",
};

/** "48 ksym/s". */
export const rateWords = (hertz: string) => hertz.replace(/Hz$/, "sym/s");

export const EQUALIZERS: Record<string, string> = {
  off: "off",
  trained: "trained",
  held: "held as it is",
};
