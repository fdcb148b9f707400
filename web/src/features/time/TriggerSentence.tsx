import { Button, Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import type { TriggerSettings } from "../../api/client";
import { placesOf, valuesOf } from "../../api/frames";
import { QuantityField } from "../../components/QuantityField";
import { TypedField } from "../../components/TypedField";
import { formatEngineering, formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { BeginField, CentreField, ReferenceLine } from "../../desk/RecordFields";
import type { RecordsModel } from "../modulation/useRecords";
import { KeepRecording } from "./KeepRecording";
import type { SentenceProps } from "./kinds";
import { newest, TRIGGERS } from "./ring";
import {
  BROKEN,
  briefMask,
  intervalsChange,
  maskChange,
  maskOver,
  readIntervals,
  readMask,
  showIntervals,
  showMask,
} from "./waits";

/** The settings that are times. */
type Times =
  | "seconds"
  | "leastSeconds"
  | "mostSeconds"
  | "pauseSeconds"
  | "holdOffSeconds"
  | "intervalsWithinSeconds"
  | "beforeSeconds"
  | "afterSeconds";

/** A recording tells nothing of a trigger input. */
const withoutInput = ({ external, ...others }: Record<string, string>) => others;

type Wrong = (field: string) => string | undefined;

const MARGIN_DB = 6;

/** What spectra are held against, typed or laid over what is there. */
function MaskFields(props: {
  model: RecordsModel<TriggerSettings>;
  settings: TriggerSettings;
  wrong: Wrong;
}) {
  const { model, settings: s, wrong } = props;
  const { frame, change } = model;
  const spectrum = frame?.outcome.series.find((c) => c.id === "spectrum");
  return (
    <>
      <TypedField
        label="Mask"
        value={s.mask ?? []}
        show={showMask}
        brief={briefMask}
        read={readMask}
        none="all over the band"
        longest={4000}
        error={wrong("mask")}
        onCommit={(mask) => change(maskChange(mask))}
      />
      , RBW{" "}
      <QuantityField
        label="RBW"
        unit="Hz"
        value={s.rbwHz}
        words={{ auto: 0 }}
        error={wrong("rbwHz")}
        format={(v) => (v === 0 ? "auto" : formatHertz(v))}
        onCommit={(rbwHz) => change({ rbwHz })}
      />{" "}
      {spectrum && (
        <Button
          size="compact-xs"
          variant="default"
          onClick={() =>
            change(
              maskChange(
                maskOver(
                  placesOf(spectrum, frame?.arrays),
                  valuesOf(spectrum, frame?.arrays),
                  MARGIN_DB,
                  s.bandHz > 0 ? [s.centreHz - s.bandHz / 2, s.centreHz + s.bandHz / 2] : undefined,
                ),
              ),
            )
          }
        >
          {MARGIN_DB} dB over what was there
        </Button>
      )}
    </>
  );
}

/** Times from one to the next. */
function IntervalFields(props: {
  settings: TriggerSettings;
  wrong: Wrong;
  change: RecordsModel<TriggerSettings>["change"];
  /** How far they may be off. */
  children: ReactNode;
}) {
  const { settings: s, wrong, change } = props;
  const times = s.intervals ?? [];
  return (
    <>
      {times.length === 1 ? (
        <>
          that{" "}
          <Choice
            label="Intervals that"
            value={String(s.intervalsBroken)}
            choices={BROKEN}
            onChange={(v) => change({ intervalsBroken: v === "true" })}
          />{" "}
          after{" "}
        </>
      ) : (
        "from one to the next "
      )}
      <TypedField
        label="Intervals"
        value={times}
        show={showIntervals}
        read={readIntervals}
        none="any time"
        longest={400}
        error={wrong("intervals")}
        onCommit={(found) => change(intervalsChange(s, found))}
      />
      {times.length > 0 && <>, within {props.children}</>}
    </>
  );
}

/** What is waited for in which band, and what becomes of it, as one sentence. */
export function TriggerSentence({ model, recording }: SentenceProps<TriggerSettings>) {
  const { state, problem, change, frame } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  // Over a mask the level is in dB: what is crossed is told as the spectrum is.
  const spectrum = frame?.outcome.series.find((c) => c.id === "spectrum");
  const levelUnit = (spectrum ?? frame?.outcome.series[0])?.unit ?? "dBm";
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
  const levelled =
    s.triggerBy === "rises" ||
    s.triggerBy === "falls" ||
    (s.triggerBy === "mask" && !s.mask?.length);
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
        choices={recording ? withoutInput(TRIGGERS) : TRIGGERS}
        onChange={(triggerBy) => change({ triggerBy })}
      />
      {waits && (
        <>
          {" "}
          {levelled && (
            <QuantityField
              label="Trigger level"
              unit={levelUnit}
              value={s.levelDb}
              error={wrong("levelDb")}
              format={(v) => `${v} ${levelUnit}`}
              next={(v, up) => v + (up ? 1 : -1)}
              onCommit={(levelDb) => change({ levelDb })}
            />
          )}
          {s.triggerBy === "mask" && levelled && " "}
          {s.triggerBy === "mask" && <MaskFields model={model} settings={s} wrong={wrong} />}
          <br />
          {s.triggerBy !== "external" && (
            <>
              lasting {time("leastSeconds", "Lasts at least", "any")} to{" "}
              {time("mostSeconds", "Lasts at most", "any")}
              <br />
              pauses in it {time("pauseSeconds", "Pauses up to", "none")},{" "}
            </>
          )}
          hold-off {time("holdOffSeconds", "Hold-off", "none")}
          <br />
          <IntervalFields settings={s} wrong={wrong} change={change}>
            {time("intervalsWithinSeconds", "Intervals within")}
          </IntervalFields>
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
