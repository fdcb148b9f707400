import { Text } from "@mantine/core";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { FORMATS } from "../modulation/carrierWords";
import type { ReceiverModel } from "./useReceiver";

/** How the receiver is looked at, as one sentence. */
export function ReceiverSentence({ model }: { model: ReceiverModel }) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const { countsBits, givesAudio } = state.facts;
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const audio = (field: "audioLowHz" | "audioHighHz", label: string) => (
    <QuantityField
      label={label}
      unit="Hz"
      value={s[field]}
      words={{ all: 0, none: 0 }}
      error={wrong(field)}
      format={(v) => (v === 0 ? "all" : formatHertz(v))}
      onCommit={(v) => change({ [field]: v })}
    />
  );
  return (
    <div className={classes.sentence}>
      looks of{" "}
      <QuantityField
        label="Length of a look"
        unit="s"
        value={s.seconds}
        error={wrong("seconds")}
        onCommit={(seconds) => change({ seconds })}
      />
      {countsBits && (
        <>
          <br />
          theory of{" "}
          <Choice
            label="Format"
            value={s.format}
            choices={FORMATS}
            onChange={(format) => change({ format })}
          />{" "}
          at a noise figure of{" "}
          <QuantityField
            label="Noise figure"
            unit="dB"
            value={s.noiseFigureDb ?? -1}
            words={{ unknown: -1 }}
            error={wrong("noiseFigureDb")}
            format={(v) => (v < 0 ? "(unknown)" : `${v} dB`)}
            next={(v, up) => Math.max(0, v + (up ? 0.5 : -0.5))}
            onCommit={(v) => change({ noiseFigureDb: v < 0 ? null : v })}
          />
          <br />
          bit error ratio at most{" "}
          <QuantityField
            label="Highest bit error ratio"
            unit=""
            value={s.highestErrorRatio ?? 0}
            words={{ any: 0, none: 0 }}
            error={wrong("highestErrorRatio")}
            format={(v) => (v === 0 ? "any" : v.toExponential(0))}
            next={(v, up) => (up ? v * 10 : v / 10)}
            onCommit={(v) => change({ highestErrorRatio: v === 0 ? null : v })}
          />
        </>
      )}
      {givesAudio && (
        <>
          <br />
          audio from {audio("audioLowHz", "Audio from")} to {audio("audioHighHz", "Audio to")},{" "}
          <Choice
            label="Weighting"
            value={s.weighted ? "ear" : "flat"}
            choices={{ flat: "not weighted", ear: "psophometric (ITU-T O.41)" }}
            onChange={(v) => change({ weighted: v === "ear" })}
          />
          <br />
          SINAD at least{" "}
          <QuantityField
            label="Least SINAD"
            unit="dB"
            value={s.leastSinadDb ?? 0}
            words={{ any: 0, none: 0 }}
            error={wrong("leastSinadDb")}
            format={(v) => (v === 0 ? "any" : `${v} dB`)}
            next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
            onCommit={(v) => change({ leastSinadDb: v === 0 ? null : v })}
          />
        </>
      )}
    </div>
  );
}
