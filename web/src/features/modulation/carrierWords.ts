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
};

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
