import { Text } from "@mantine/core";
import type { SpectrogramSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import classes from "../../desk/Desk.module.css";
import { LengthField, ReferenceLine } from "../../desk/RecordFields";
import type { SentenceProps } from "./kinds";
import { SpectraFields } from "./SpectraFields";

/** Which spectra stand under each other, as one sentence. */
export function SpectrogramSentence({ model, recording }: SentenceProps<SpectrogramSettings>) {
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
      <LengthField of={of} />, at most{" "}
      <QuantityField
        label="Rows"
        unit=""
        value={s.rows}
        error={wrong("rows")}
        format={(v) => `${v} rows`}
        next={(v, up) => (up ? 2 * v : Math.round(v / 2))}
        onCommit={(rows) => change({ rows: Math.round(rows) })}
      />
      <ReferenceLine of={of} />
    </div>
  );
}
