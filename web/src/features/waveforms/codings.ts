/** Of one stream: tables 19-27 and 21-30, and those of later clauses. */
const CODINGS = [
  "BPSK 1/2",
  "QPSK 1/2",
  "QPSK 3/4",
  "16-QAM 1/2",
  "16-QAM 3/4",
  "64-QAM 2/3",
  "64-QAM 3/4",
  "64-QAM 5/6",
  "256-QAM 3/4",
  "256-QAM 5/6",
  "1024-QAM 3/4",
  "1024-QAM 5/6",
  "4096-QAM 3/4",
  "4096-QAM 5/6",
];

/** How many of these a format has. */
const CODINGS_OF: Record<string, number> = { HT: 8, VHT: 10, HE: 12, EHT: 14 };

/** Of VHT, 256-QAM 5/6 does not fill a symbol of 20 MHz; in 160 MHz two coders begin before it. */
const codingsIn = (format: string, bandHz: number) =>
  format !== "VHT" ? CODINGS_OF[format] : bandHz <= 20e6 ? 9 : bandHz >= 160e6 ? 8 : 10;

/** Choices by their number. */
export const numbered = (words: string[]) =>
  Object.fromEntries(words.map((text, i) => [String(i), text]));

/** "MCS 4, 16-QAM 3/4" by number. */
export const codingsOf = (format: string, bandHz = 40e6) =>
  numbered(CODINGS.slice(0, codingsIn(format, bandHz)).map((words, mcs) => `MCS ${mcs}, ${words}`));

/** The highest MCS that a format has in a channel. */
export const lastMcs = (format: string, bandHz: number) => codingsIn(format, bandHz) - 1;

/** Kinds of training and guard of packets that answer a trigger. */
export const ANSWER_TRAININGS = ["1x, 1.6 us", "2x, 1.6 us", "4x, 3.2 us"];
