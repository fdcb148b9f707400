import { Text } from "@mantine/core";
import type { BurstSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { BeginField, ReferenceField } from "../../desk/RecordFields";
import type { RecordsModel } from "../modulation/useRecords";

type Limits =
  | "leastPeriodSeconds"
  | "mostPeriodSeconds"
  | "leastLengthSeconds"
  | "mostLengthSeconds";

/** Which bursts are looked for, and what they should be, as one sentence. */
export function BurstSentence(props: { model: RecordsModel<BurstSettings>; recording: boolean }) {
  const { model, recording } = props;
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
  return (
    <div className={classes.sentence}>
      bursts near{" "}
      <QuantityField
        label="Centre"
        unit="Hz"
        value={s.centreHz}
        words={recording ? { middle: 0 } : undefined}
        error={wrong("centreHz")}
        format={(v) => (v === 0 ? "the middle" : formatHertz(v))}
        next={(v, up) => v + (up ? 0.1 : -0.1) * s.bandHz}
        onCommit={(centreHz) => change({ centreHz })}
      />
      <br />
      in a band of{" "}
      <QuantityField
        label="Band"
        unit="Hz"
        value={s.bandHz}
        error={wrong("bandHz")}
        onCommit={(bandHz) => change({ bandHz })}
      />
      , over{" "}
      <QuantityField
        label="Result length"
        unit="s"
        value={s.seconds}
        error={wrong("seconds")}
        format={seconds}
        onCommit={(v) => change({ seconds: v })}
      />
      {recording && (
        <BeginField
          value={s.startSeconds}
          step={s.seconds / 2}
          error={wrong("startSeconds")}
          onCommit={(startSeconds) => change({ startSeconds })}
        />
      )}
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
      {!recording && (
        <ReferenceField
          value={s.referenceLevelDbm}
          error={wrong("referenceLevelDbm")}
          onCommit={(referenceLevelDbm) => change({ referenceLevelDbm })}
        />
      )}
    </div>
  );
}
