import type { ReactNode } from "react";
import type { SentUser, WaveformPart } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { Choice } from "../../desk/Choice";
import { CHANNELS, WIDE_CHANNELS } from "../modulation/kinds";
import { ANSWER_TRAININGS, codingsOf, lastMcs, numbered } from "./codings";
import { UsersSentence } from "./UsersSentence";

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

/** Kinds of training and guard, as their headers number them. */
const TRAININGS: Record<string, string[]> = {
  HE: ["1x, 0.8 us", "2x, 0.8 us", "2x, 1.6 us", "4x, 3.2 us"],
  EHT: ["2x, 0.8 us", "2x, 1.6 us", "4x, 0.8 us", "4x, 3.2 us"],
};

/** Of packets for several users. */
const SHARED_TRAININGS = ["4x, 0.8 us", "2x, 0.8 us", "2x, 1.6 us", "4x, 3.2 us"];

const FOR = { one: "one user", several: "several users", answer: "a trigger" };

/** A user to begin with, as wide as half of 20 MHz. */
const firstUser = (place: number): SentUser => ({
  tones: 106,
  place,
  station: place,
  mcs: 7,
  levelDb: 0,
});

const WIDEST: Record<string, number> = { HT: 40e6, VHT: 160e6, HE: 160e6, EHT: 320e6 };

/** Channels of packets that are newer: from 20 MHz on. */
const channelsOf = (format: string) =>
  Object.fromEntries(
    Object.entries(WIDE_CHANNELS).filter(
      ([hz]) => Number(hz) >= 20e6 && Number(hz) <= WIDEST[format],
    ),
  );

/** What changes with the format: rates of one are not those of another. */
function changed(format: string): Partial<WaveformPart> {
  if (format === "LEGACY") {
    const none = { mcs: null, shortGuard: null, training: null, users: null, answer: null };
    return { ...none, format, megabits: 54, bandHz: 20e6 };
  }
  const alike = { megabits: null, mcs: 7, bandHz: 20e6, users: null, answer: null };
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
  const users = p.users ?? undefined;
  return (
    <>
      :{" "}
      <Choice
        label="Kind of the packets"
        value={format}
        choices={FORMATS}
        onChange={(v) => onChange(changed(v))}
      />{" "}
      {format === "HE" && (
        <>
          {p.answer ? "that answer" : "for"}{" "}
          <Choice
            label="Users of the packets"
            value={p.answer ? "answer" : users ? "several" : "one"}
            choices={FOR}
            onChange={(v) =>
              onChange(
                v === "one"
                  ? { mcs: 7, users: null, answer: null, training: 3 }
                  : v === "several"
                    ? { mcs: null, users: [firstUser(1), firstUser(2)], answer: null }
                    : { mcs: null, users: [firstUser(1)], answer: true, training: 1 },
              )
            }
          />
          ,{" "}
        </>
      )}
      {!users && "with "}
      {users ? (
        <Choice
          label="Training and guard of the packets"
          value={String(p.training)}
          choices={numbered(p.answer ? ANSWER_TRAININGS : SHARED_TRAININGS)}
          onChange={(v) => onChange({ training: Number(v) })}
        />
      ) : legacy ? (
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
            choices={codingsOf(format, p.bandHz ?? 20e6)}
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
      bytes{users ? " for each" : ""} every {props.interval}
      {" in a channel of "}
      <Choice
        label="Channel of the packets"
        value={String(p.bandHz)}
        choices={legacy ? CHANNELS : channelsOf(format)}
        onChange={(v) =>
          onChange({
            bandHz: Number(v),
            // An MCS that the other channel does not have is the next one below.
            ...(p.mcs ? { mcs: Math.min(p.mcs, lastMcs(format, Number(v))) } : {}),
          })
        }
      />
      {users && <UsersSentence users={users} onChange={(all) => onChange({ users: all })} />}
    </>
  );
}
