/** Of one stream in 20 MHz: tables 19-27 and 21-30. */
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
const CODINGS_OF: Record<string, number> = { HT: 8, VHT: 9, HE: 12, EHT: 14 };

/** Choices by their number. */
export const numbered = (words: string[]) =>
  Object.fromEntries(words.map((text, i) => [String(i), text]));

/** "MCS 4, 16-QAM 3/4" by number. */
export const codingsOf = (format: string) =>
  numbered(CODINGS.slice(0, CODINGS_OF[format]).map((words, mcs) => `MCS ${mcs}, ${words}`));

/** Kinds of training and guard of packets that answer a trigger. */
export const ANSWER_TRAININGS = ["1x, 1.6 us", "2x, 1.6 us", "4x, 3.2 us"];
