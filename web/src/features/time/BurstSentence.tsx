import { Text } from "@mantine/core";
import { useState } from "react";
import type { BurstSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { BandAndLength, CentreField, ReferenceLine } from "../../desk/RecordFields";
import type { RecordsModel } from "../modulation/useRecords";
import { KeepRecording } from "./KeepRecording";
import { KnownRates } from "./KnownRates";
import type { SentenceProps } from "./kinds";
import { burst } from "./ring";

type Limits =
  | "leastPeriodSeconds"
  | "mostPeriodSeconds"
  | "leastLengthSeconds"
  | "mostLengthSeconds";

/** Which bursts are looked for, and what they should be, as one sentence. */
export function BurstSentence({ model, recording, job }: SentenceProps<BurstSettings>) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const seconds = (v: number) => formatEngineering(v, "s");
  const shortest = (field: "leastSeconds" | "pauseSeconds", label: string) => (
    <QuantityField
      label={label}
      unit="s"
      value={s[field]}
      words={{ any: 0 }}
      error={wrong(field)}
      format={(v) => (v === 0 ? "any" : seconds(v))}
      onCommit={(v) => change({ [field]: v })}
    />
  );
  const limit = (field: Limits, label: string) => (
    <QuantityField
      label={label}
      unit="s"
      value={s[field] ?? 0}
      words={{ any: 0, none: 0 }}
      error={wrong(field)}
      format={(v) => (v === 0 ? "any" : seconds(v))}
      onCommit={(v) => change({ [field]: v === 0 ? null : v })}
    />
  );
  const of = { settings: s, recording, wrong, change };
  return (
    <div className={classes.sentence}>
      bursts near <CentreField of={of} step={0.1 * s.bandHz} />
      <br />
      <BandAndLength of={of} bandHz={s.bandHz} onBand={(bandHz) => change({ bandHz })} />
      <br />
      threshold{" "}
      <QuantityField
        label="Threshold over noise"
        unit="dB"
        value={s.overNoiseDb ?? 0}
        words={{ found: 0 }}
        error={wrong("overNoiseDb")}
        format={(v) => (v === 0 ? "found" : `${v} dB over noise`)}
        next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
        onCommit={(v) => change({ overNoiseDb: v === 0 ? null : v })}
      />
      <br />
      shortest burst {shortest("leastSeconds", "Shortest burst")}, shortest pause{" "}
      {shortest("pauseSeconds", "Shortest pause")}
      <br />
      from burst to burst {limit("leastPeriodSeconds", "Least time from burst to burst")} to{" "}
      {limit("mostPeriodSeconds", "Most time from burst to burst")}
      <br />
      length {limit("leastLengthSeconds", "Least length")} to{" "}
      {limit("mostLengthSeconds", "Most length")}
      {job && (
        <>
          <br />
          <KnownRates job={job} />
        </>
      )}
      <ReferenceLine of={of} />
      {model.frame && <KeepBurst model={model} />}
    </div>
  );
}

/** One burst becomes a recording: whatever measures that is gated by the burst. */
function KeepBurst({ model }: { model: RecordsModel<BurstSettings> }) {
  const [number, setNumber] = useState(1);
  const found = burst(model.frame?.outcome, number);
  return (
    <KeepRecording model={model} label="Keep burst" stretch={() => found}>
      <QuantityField
        label="Burst to keep"
        unit=""
        value={number}
        format={(v) => `${v}`}
        next={(v, up) => Math.max(1, v + (up ? 1 : -1))}
        onCommit={(v) => setNumber(Math.max(1, Math.round(v)))}
      />
      {typeof found !== "string" && found.fromSeconds !== null && (
        <Text fz="sm">at {formatEngineering(found.fromSeconds, "s")}</Text>
      )}
    </KeepRecording>
  );
}
