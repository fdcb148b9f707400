import { QuantityField } from "../../components/QuantityField";
import { formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import { CentreField, type RecordPart } from "../../desk/RecordFields";
import { WINDOWS } from "./windows";

/** Settings of spectra one after the other. */
export interface OfSpectra {
  spanHz: number;
  rbwHz: number;
  window: string;
  overlapPercent: number;
}

/** Which spectra are made of a record, as the first lines of a sentence. */
export function SpectraFields(props: {
  of: RecordPart;
  settings: OfSpectra;
  change: (part: Partial<OfSpectra>) => unknown;
}) {
  const { of, settings: s, change } = props;
  const { recording, wrong } = of;
  return (
    <>
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
    </>
  );
}
