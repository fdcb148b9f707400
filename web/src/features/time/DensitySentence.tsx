import { Text } from "@mantine/core";
import type { DensitySettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { CentreField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import type { SentenceProps } from "./kinds";
import { WINDOWS } from "./windows";

/** Which spectra are counted, as one sentence. */
export function DensitySentence({ model, recording }: SentenceProps<DensitySettings>) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  return (
    <div className={classes.sentence}>
      centre <CentreField of={of} step={0.1 * (s.spanHz || 1e6)} />, span{" "}
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
      RBW{" "}
      <QuantityField
        label="RBW"
        unit="Hz"
        value={s.rbwHz}
        words={{ auto: 0 }}
        error={wrong("rbwHz")}
        format={(v) => (v === 0 ? "auto" : formatHertz(v))}
        onCommit={(rbwHz) => change({ rbwHz })}
      />
      ,{" "}
      <Choice
        label="Window"
        value={s.window}
        choices={WINDOWS}
        onChange={(window) => change({ window })}
      />
      , overlap{" "}
      <QuantityField
        label="Overlap"
        unit="%"
        value={s.overlapPercent}
        error={wrong("overlapPercent")}
        format={(v) => `${v} %`}
        next={(v, up) => Math.max(0, Math.min(95, v + (up ? 5 : -5)))}
        onCommit={(overlapPercent) => change({ overlapPercent })}
      />
      <br />
      <LengthField of={of} />, decay{" "}
      <QuantityField
        label="Decay"
        unit="s"
        value={s.decaySeconds}
        words={{ none: 0 }}
        error={wrong("decaySeconds")}
        format={(v) => (v === 0 ? "none" : formatEngineering(v, "s"))}
        onCommit={(decaySeconds) => change({ decaySeconds })}
      />
      <ReferenceLine of={of} />
    </div>
  );
}
