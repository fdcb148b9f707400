import { Text } from "@mantine/core";
import type { HopSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { CentreField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import type { SentenceProps } from "./kinds";

/** Which channels are looked at, and what a hop is, as one sentence. */
export function HopSentence({ model, recording }: SentenceProps<HopSettings>) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  const seconds = (v: number) => formatEngineering(v, "s");
  const limit = (field: "leastDwellSeconds" | "mostDwellSeconds", label: string) => (
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
      near <CentreField of={of} step={s.channelHz} />, span{" "}
      <QuantityField
        label="Span"
        unit="Hz"
        value={s.spanHz}
        words={recording ? { whole: 0, all: 0 } : undefined}
        error={wrong("spanHz")}
        format={(v) => (v === 0 ? "the whole" : formatHertz(v))}
        onCommit={(spanHz) => change({ spanHz })}
      />
      <br />
      channels{" "}
      <QuantityField
        label="Channels apart"
        unit="Hz"
        value={s.channelHz}
        error={wrong("channelHz")}
        onCommit={(channelHz) => change({ channelHz })}
      />{" "}
      apart, the first{" "}
      <QuantityField
        label="Channel 1"
        unit="Hz"
        value={s.firstHz}
        words={{ found: 0, lowest: 0 }}
        error={wrong("firstHz")}
        format={(v) => (v === 0 ? "found" : formatHertz(v))}
        next={(v, up) => v + (up ? 1 : -1) * s.channelHz}
        onCommit={(firstHz) => change({ firstHz })}
      />
      ,{" "}
      <QuantityField
        label="Channels"
        unit=""
        value={s.channels}
        words={{ found: 0, any: 0 }}
        error={wrong("channels")}
        format={(v) => (v === 0 ? "any number" : `${v} of them`)}
        next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
        onCommit={(channels) => change({ channels: Math.round(channels) })}
      />
      <br />
      <LengthField of={of} />, shortest hop{" "}
      <QuantityField
        label="Shortest hop"
        unit="s"
        value={s.leastSeconds}
        error={wrong("leastSeconds")}
        format={seconds}
        onCommit={(leastSeconds) => change({ leastSeconds })}
      />
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
      , stays {limit("leastDwellSeconds", "Least stay")} to {limit("mostDwellSeconds", "Most stay")}
      <ReferenceLine of={of} />
    </div>
  );
}
