import type { CarrierDescription, WaveformPart } from "../../api/client";

/** Kinds of parts by the key that the server knows them under. */
export const KINDS: Record<string, string> = {
  "single-carrier": "carrier with data",
  carrier: "plain carrier",
  comb: "tones in even steps",
  am: "AM",
  fm: "FM",
  pm: "PM",
  pulses: "pulses",
  noise: "noise",
  sweep: "sweep",
  packets: "OFDM packets",
  frames: "OFDM frames as described",
  recording: "recording as it is",
};

/** A common carrier, where nothing else says what is wanted. */
export const FIRST_CARRIER: CarrierDescription = {
  format: "qpsk",
  symbolRateHz: 48e3,
  filter: "root-raised-cosine",
  filterParameter: 0.35,
  mapping: null,
  prbs: 9,
  bits: null,
  word: null,
  wordEverySymbols: null,
  deviationHz: null,
};

const NOTHING: WaveformPart = {
  kind: "carrier",
  offsetHz: 0,
  levelDb: 0,
  carrier: null,
  tones: null,
  count: null,
  spacingHz: null,
  lowCrest: null,
  widthSeconds: null,
  intervalSeconds: null,
  edgeSeconds: null,
  bandHz: null,
  depthPercent: null,
  deviationHz: null,
  deviationRadians: null,
  rateHz: null,
  byNoise: null,
  fromHz: null,
  toHz: null,
  seconds: null,
  megabits: null,
  bytes: null,
  format: null,
  mcs: null,
  shortGuard: null,
  training: null,
  users: null,
  answer: null,
  description: null,
  recordingId: null,
};

/** A part of a kind with numbers to begin with. */
export function firstPart(kind: string, carrier: CarrierDescription): WaveformPart {
  const numbers: Record<string, Partial<WaveformPart>> = {
    "single-carrier": { carrier },
    comb: { count: 8, spacingHz: 10e3, lowCrest: true },
    am: { depthPercent: 50, rateHz: 1e3, byNoise: false },
    fm: { deviationHz: 2.5e3, rateHz: 1e3, byNoise: false },
    pm: { deviationRadians: 1, rateHz: 1e3, byNoise: false },
    pulses: { widthSeconds: 10e-6, intervalSeconds: 1e-3, edgeSeconds: 0 },
    noise: { bandHz: 100e3 },
    packets: { megabits: 54, bytes: 1000, intervalSeconds: 500e-6, bandHz: 20e6 },
    frames: { intervalSeconds: 1.25e-3 },
    sweep: { fromHz: -50e3, toHz: 50e3, seconds: 10e-3 },
  };
  return { ...NOTHING, kind, ...numbers[kind] };
}
