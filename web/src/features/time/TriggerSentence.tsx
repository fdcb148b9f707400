import { Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { TriggerSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { BeginField, CentreField, ReferenceLine } from "../../desk/RecordFields";
import type { RecordsModel } from "../modulation/useRecords";
import { KeepRecording } from "./KeepRecording";
import type { SentenceProps } from "./kinds";
import { newest, TRIGGERS } from "./ring";

/** The settings that are times. */
type Times =
  | "seconds"
  | "leastSeconds"
  | "mostSeconds"
  | "pauseSeconds"
  | "holdOffSeconds"
  | "beforeSeconds"
  | "afterSeconds";

/** What is waited for in which band, and what becomes of it, as one sentence. */
export function TriggerSentence({ model, recording }: SentenceProps<TriggerSettings>) {
  const { state, problem, change, frame } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  const unit = frame?.outcome.series[0]?.unit ?? "dBm";
  const time = (field: Times, label: string, none = "") => (
    <QuantityField
      label={label}
      unit="s"
      value={s[field] ?? 0}
      words={none ? { [none]: 0 } : undefined}
      error={wrong(field)}
      format={(v) => (v === 0 && none ? none : formatEngineering(v, "s"))}
      onCommit={(v) => change({ [field]: v === 0 && field === "mostSeconds" ? null : v })}
    />
  );
  const waits = s.triggerBy !== "none";
  return (
    <div className={classes.sentence}>
      near <CentreField of={of} step={0.5 * (s.bandHz || 1e6)} />, band{" "}
      <QuantityField
        label="Band"
        unit="Hz"
        value={s.bandHz}
        words={recording ? { whole: 0, all: 0 } : undefined}
        error={wrong("bandHz")}
        format={(v) => (v === 0 ? "the whole" : formatHertz(v))}
        onCommit={(bandHz) => change({ bandHz })}
      />
      <br />
      {recording ? "over " : "in a ring of "}
      {time("seconds", recording ? "Result length" : "Ring")}
      {recording ? (
        <BeginField
          value={s.startSeconds}
          step={s.seconds / 2}
          error={wrong("startSeconds")}
          onCommit={(startSeconds) => change({ startSeconds })}
        />
      ) : (
        ", without gaps"
      )}
      <br />
      wait for{" "}
      <Choice
        label="Trigger"
        value={s.triggerBy}
        choices={TRIGGERS}
        onChange={(triggerBy) => change({ triggerBy })}
      />
      {waits && (
        <>
          {" "}
          <QuantityField
            label="Trigger level"
            unit={unit}
            value={s.levelDb}
            error={wrong("levelDb")}
            format={(v) => `${v} ${unit}`}
            next={(v, up) => v + (up ? 1 : -1)}
            onCommit={(levelDb) => change({ levelDb })}
          />
          <br />
          lasting {time("leastSeconds", "Lasts at least", "any")} to{" "}
          {time("mostSeconds", "Lasts at most", "any")}
          <br />
          pauses in it {time("pauseSeconds", "Pauses up to", "none")}, hold-off{" "}
          {time("holdOffSeconds", "Hold-off", "none")}
          <br />
          from {time("beforeSeconds", "Before", "nothing")} before to{" "}
          {time("afterSeconds", "After", "nothing")} after
          {!recording && (
            <>
              <br />
              <QuantityField
                label="Triggers that become recordings"
                unit=""
                value={s.mostKept}
                words={{ none: 0 }}
                error={wrong("mostKept")}
                format={(v) => (v === 0 ? "none" : v === 1 ? "the first" : `the first ${v}`)}
                next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
                onCommit={(v) => change({ mostKept: Math.round(v) })}
              />{" "}
              kept as {s.mostKept === 1 ? "a recording" : "recordings"}
            </>
          )}
        </>
      )}
      <ReferenceLine of={of} />
      {!recording && <KeepNewest model={model} ring={s.seconds} />}
    </div>
  );
}

/** The newest of what goes on becomes a recording. */
function KeepNewest(props: { model: RecordsModel<TriggerSettings>; ring: number }) {
  const { model, ring } = props;
  const queries = useQueryClient();
  const [wanted, setWanted] = useState<number | null>(null);
  const kept = model.frame?.outcome.tables.find((t) => t.id === "recordings")?.rows.length ?? 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: one more recording is there
  useEffect(() => {
    queries.invalidateQueries({ queryKey: ["recordings"] });
  }, [queries, kept]);
  if (!model.frame) {
    return null;
  }
  const seconds = Math.min(wanted ?? ring, ring);
  return (
    <KeepRecording model={model} label="Keep the newest" stretch={() => newest(seconds)}>
      <QuantityField
        label="Length of the recording"
        unit="s"
        value={seconds}
        format={(v) => formatEngineering(v, "s")}
        onCommit={(v) => setWanted(v)}
      />
    </KeepRecording>
  );
}
