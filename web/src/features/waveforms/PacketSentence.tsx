import type { ReactNode } from "react";
import type { WaveformPart } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { Choice } from "../../desk/Choice";
import { CHANNELS } from "../modulation/kinds";

const FORMATS = { LEGACY: "OFDM", HT: "HT", VHT: "VHT" };

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
];

const codingsOf = (format: string) =>
  Object.fromEntries(
    CODINGS.slice(0, format === "VHT" ? 9 : 8).map((words, mcs) => [
      String(mcs),
      `MCS ${mcs}, ${words}`,
    ]),
  );

/** What changes with the format: rates of one are not those of another. */
function changed(format: string): Partial<WaveformPart> {
  return format === "LEGACY"
    ? { format: "LEGACY", megabits: 54, mcs: null, shortGuard: null }
    : {
        format: format === "VHT" ? "VHT" : "HT",
        megabits: null,
        mcs: 7,
        shortGuard: false,
        bandHz: 20e6,
      };
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
          , guard{" "}
          <Choice
            label="Guard of the packets"
            value={p.shortGuard ? "short" : "usual"}
            choices={{ usual: "800 ns", short: "400 ns" }}
            onChange={(v) => onChange({ shortGuard: v === "short" })}
          />
        </>
      )}
      ,{" "}
      <QuantityField
        label="Bytes"
        unit=""
        whole
        value={p.bytes ?? 1000}
        next={(v, up) => Math.min(4095, Math.max(5, v + (up ? 100 : -100)))}
        onCommit={(bytes) => onChange({ bytes })}
      />{" "}
      bytes every {props.interval}
      {legacy ? (
        <>
          {" "}
          in a channel of{" "}
          <Choice
            label="Channel of the packets"
            value={String(p.bandHz)}
            choices={CHANNELS}
            onChange={(v) => onChange({ bandHz: Number(v) })}
          />
        </>
      ) : (
        " in a channel of 20 MHz"
      )}
    </>
  );
}
