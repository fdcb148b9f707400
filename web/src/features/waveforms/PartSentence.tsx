import { UnstyledButton } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api, type CarrierDescription, type Recording, type WaveformPart } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { DataSentence, WhatSentence } from "../modulation/CarrierWhat";
import { described } from "../modulation/carrierWords";
import { DescriptionChoice, useReadyDescriptions } from "../modulation/DescriptionChoice";
import { PacketSentence } from "./PacketSentence";
import { firstPart, KINDS } from "./parts";

/** Recordings that are open, by their number. */
function useRecordings(): Record<string, string> {
  const { data = [] } = useQuery({
    queryKey: ["recordings"],
    queryFn: () => api.get<Recording[]>("/api/recordings"),
  });
  return Object.fromEntries(data.map((r) => [String(r.id), r.name]));
}

const firstOf = (recordings: Record<string, string>) => {
  const [id] = Object.keys(recordings);
  return id ? Number(id) : null;
};

/** One part of a waveform as a sentence. */
export function PartSentence(props: {
  part: WaveformPart;
  /** Carrier with data to begin with. */
  carrier: CarrierDescription;
  /** Others stand beside it, so its level and place matter. */
  several: boolean;
  onChange: (part: Partial<WaveformPart>) => void;
  onRemove: () => void;
}) {
  const { part: p, onChange } = props;
  const field = (
    key: keyof WaveformPart,
    label: string,
    unit: string,
    next?: (v: number, up: boolean) => number,
  ) => (
    <QuantityField
      label={label}
      unit={unit}
      value={Number(p[key] ?? 0)}
      format={
        unit === "s"
          ? (v) => formatEngineering(v, "s")
          : unit === "rad" || unit === "%"
            ? (v) => `${v} ${unit}`
            : undefined
      }
      next={next}
      onCommit={(v) => onChange({ [key]: v })}
    />
  );
  const recordings = useRecordings();
  const ready = useReadyDescriptions();
  const taken = p.recordingId === null ? "" : String(p.recordingId);
  const rate = (
    <>
      {" "}
      by{" "}
      <Choice
        label="Message"
        value={taken || (p.byNoise ? "noise" : "tone")}
        choices={{ tone: "a tone of", noise: "noise up to", ...recordings }}
        onChange={(v) =>
          onChange(
            v in recordings
              ? { recordingId: Number(v), byNoise: false }
              : { recordingId: null, byNoise: v === "noise" },
          )
        }
      />{" "}
      {!taken && field("rateHz", "Rate", "Hz")}
    </>
  );
  const describe = async (change: Partial<CarrierDescription>) => {
    onChange({ carrier: described(p.carrier ?? props.carrier, change) });
    return "";
  };
  return (
    <div className={classes.sentence}>
      <Choice
        label="Part"
        value={p.kind}
        choices={KINDS}
        onChange={(kind) =>
          onChange({
            ...firstPart(kind, props.carrier),
            recordingId: kind === "recording" ? firstOf(recordings) : null,
            description: kind === "frames" ? (ready[0] ?? null) : null,
            offsetHz: p.offsetHz,
            levelDb: p.levelDb,
          })
        }
      />
      {p.kind === "single-carrier" && p.carrier && (
        <>
          : <WhatSentence carrier={p.carrier} wrong={() => undefined} onChange={describe} />
          <br />
          <DataSentence carrier={p.carrier} onChange={describe} />
        </>
      )}
      {p.kind === "comb" && (
        <>
          :{" "}
          <QuantityField
            label="Tones"
            unit=""
            whole
            value={p.count ?? 1}
            next={(v, up) => Math.max(1, v + (up ? 1 : -1))}
            onCommit={(count) => onChange({ count })}
          />{" "}
          tones every {field("spacingHz", "Spacing", "Hz")},{" "}
          <Choice
            label="Phases"
            value={p.lowCrest ? "low" : "equal"}
            choices={{ low: "phases for low peaks", equal: "all in phase" }}
            onChange={(v) => onChange({ lowCrest: v === "low" })}
          />
        </>
      )}
      {p.kind === "am" && (
        <>
          {" "}
          {field("depthPercent", "Depth", "%", (v, up) => Math.max(0, v + (up ? 5 : -5)))}
          {rate}
        </>
      )}
      {p.kind === "fm" && (
        <>
          {" "}
          ± {field("deviationHz", "Deviation", "Hz")}
          {rate}
        </>
      )}
      {p.kind === "pm" && (
        <>
          {" "}
          ± {field("deviationRadians", "Deviation", "rad", (v, up) => v * (up ? 1.1 : 0.9))}
          {rate}
        </>
      )}
      {p.kind === "pulses" && (
        <>
          {" "}
          of {field("widthSeconds", "Width", "s")} every {field("intervalSeconds", "Interval", "s")}
          , edges of {field("edgeSeconds", "Edges", "s")}
        </>
      )}
      {p.kind === "packets" && (
        <PacketSentence
          part={p}
          interval={field("intervalSeconds", "Interval", "s")}
          onChange={onChange}
        />
      )}
      {p.kind === "frames" && (
        <>
          :{" "}
          <DescriptionChoice
            label="Frames"
            value={p.description}
            legacy={null}
            onChange={(description) => onChange({ description })}
          />
          , every {field("intervalSeconds", "Interval", "s")}
        </>
      )}
      {p.kind === "recording" && (
        <>
          :{" "}
          <Choice
            label="Recording"
            value={taken}
            choices={
              Object.keys(recordings).length ? recordings : { "": "none is open, open one first" }
            }
            onChange={(v) => v && onChange({ recordingId: Number(v) })}
          />
        </>
      )}
      {p.kind === "noise" && <> {field("bandHz", "Band", "Hz")} wide</>}
      {p.kind === "sweep" && (
        <>
          {" "}
          from {field("fromHz", "From", "Hz")} to {field("toHz", "To", "Hz")} in{" "}
          {field("seconds", "Duration", "s")}
        </>
      )}
      {props.several && (
        <>
          <br />
          moved by{" "}
          <QuantityField
            label="Moved by"
            unit="Hz"
            value={p.offsetHz ?? 0}
            format={(v) => (v === 0 ? "nothing" : formatHertz(v))}
            words={{ nothing: 0 }}
            next={(v, up) => v + (up ? 1e4 : -1e4)}
            onCommit={(offsetHz) => onChange({ offsetHz })}
          />
          , {field("levelDb", "Level against the others", "dB", (v, up) => v + (up ? 1 : -1))}{" "}
          <UnstyledButton
            aria-label={`Take away: ${KINDS[p.kind]}`}
            style={{ textDecoration: "underline", fontSize: "0.84rem" }}
            onClick={props.onRemove}
          >
            take away
          </UnstyledButton>
        </>
      )}
    </div>
  );
}
