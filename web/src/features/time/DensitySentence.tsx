import { Text } from "@mantine/core";
import type { DensitySettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { LengthField, ReferenceLine } from "../../desk/RecordFields";
import type { SentenceProps } from "./kinds";
import { SpectraFields } from "./SpectraFields";

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
      <SpectraFields of={of} settings={s} change={change} />
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
