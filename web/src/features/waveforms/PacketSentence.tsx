import type { ReactNode } from "react";
import type { WaveformPart } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { Choice } from "../../desk/Choice";
import { CHANNELS, WIDE_CHANNELS } from "../modulation/kinds";

const FORMATS = { LEGACY: "OFDM", HT: "HT", VHT: "VHT", HE: "HE", EHT: "EHT" };

/** IEEE 802.11-2020 table 17-4, in a channel of 20 MHz. */
const RATES = {
  "6": "BPSK 1/2",
  "9": "BPSK 3/4",
  "12": "QPSK 1/2",
  "18": "QPSK 3/4",
  "24": "16-QAM 1/2",
  "36": "16-QAM 3/4",
  "48": "64-QAM 2/3",
  "54": "64-QAM 3/4",
};

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

/** Kinds of training and guard, as their headers number them. */
const TRAININGS: Record<string, string[]> = {
  HE: ["1x, 0.8 us", "2x, 0.8 us", "2x, 1.6 us", "4x, 3.2 us"],
  EHT: ["2x, 0.8 us", "2x, 1.6 us", "4x, 0.8 us", "4x, 3.2 us"],
};

const numbered = (words: string[]) => Object.fromEntries(words.map((text, i) => [String(i), text]));

const codingsOf = (format: string) =>
  numbered(CODINGS.slice(0, CODINGS_OF[format]).map((words, mcs) => `MCS ${mcs}, ${words}`));

/** Channels of packets that fill them: from 20 MHz on, of HE to 160. */
const channelsOf = (format: string) =>
  Object.fromEntries(
    Object.entries(WIDE_CHANNELS).filter(
      ([hz]) => Number(hz) >= 20e6 && (format === "EHT" || Number(hz) <= 160e6),
    ),
  );

/** What changes with the format: rates of one are not those of another. */
function changed(format: string): Partial<WaveformPart> {
  if (format === "LEGACY") {
    return { format, megabits: 54, mcs: null, shortGuard: null, training: null, bandHz: 20e6 };
  }
  const alike = { megabits: null, mcs: 7, bandHz: 20e6 };
  return format === "HE" || format === "EHT"
    ? { ...alike, format, shortGuard: null, training: 3 }
    : { ...alike, format: format === "VHT" ? "VHT" : "HT", shortGuard: false, training: null };
}

/** Packets of IEEE 802.11 as the rest of a sentence. */
export function PacketSentence(props: {
  part: WaveformPart;
  interval: ReactNode;
  onChange: (part: Partial<WaveformPart>) => void;
}) {
  const { part: p, onChange } = props;
  const format = p.format ?? "LEGACY";
  const legacy = format === "LEGACY";
  const filling = format in TRAININGS;
  return (
    <>
      :{" "}
      <Choice
        label="Kind of the packets"
        value={format}
        choices={FORMATS}
        onChange={(v) => onChange(changed(v))}
      />{" "}
      with{" "}
      {legacy ? (
        <Choice
          label="Rate of the packets"
          value={String(p.megabits)}
          choices={RATES}
          onChange={(v) => onChange({ megabits: Number(v) })}
        />
      ) : (
        <>
          <Choice
            label="MCS of the packets"
            value={String(p.mcs)}
            choices={codingsOf(format)}
            onChange={(v) => onChange({ mcs: Number(v) })}
          />
          {filling ? ", training and guard " : ", guard "}
          {filling ? (
            <Choice
              label="Training and guard of the packets"
              value={String(p.training)}
              choices={numbered(TRAININGS[format])}
              onChange={(v) => onChange({ training: Number(v) })}
            />
          ) : (
            <Choice
              label="Guard of the packets"
              value={p.shortGuard ? "short" : "usual"}
              choices={{ usual: "800 ns", short: "400 ns" }}
              onChange={(v) => onChange({ shortGuard: v === "short" })}
            />
          )}
        </>
      )}
      ,{" "}
      <QuantityField
        label="Bytes"
        unit=""
        whole
        value={p.bytes ?? 1000}
        next={(v, up) => Math.max(5, v + (up ? 100 : -100))}
        onCommit={(bytes) => onChange({ bytes })}
      />{" "}
      bytes every {props.interval}
      {legacy || filling ? (
        <>
          {" "}
          in a channel of{" "}
          <Choice
            label="Channel of the packets"
            value={String(p.bandHz)}
            choices={legacy ? CHANNELS : channelsOf(format)}
            onChange={(v) => onChange({ bandHz: Number(v) })}
          />
        </>
      ) : (
        " in a channel of 20 MHz"
      )}
    </>
  );
}
