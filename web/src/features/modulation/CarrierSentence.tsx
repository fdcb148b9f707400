import { Text } from "@mantine/core";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { BeginField } from "../../desk/RecordFields";
import { DataSentence, ParameterField, WhatSentence } from "./CarrierWhat";
import { EQUALIZERS, FILTERS, firstParameter, hasParameter, keyed } from "./carrierWords";
import type { ModulationModel } from "./useModulation";

const MATCHED = "matched";
const USUAL_REACH = 5;
const MEASURING: Record<string, string> = { [MATCHED]: "the matching one", ...FILTERS };

/** What the carrier is and how it is measured, as one sentence. */
export function CarrierSentence(props: { model: ModulationModel; recording: boolean }) {
  const { model, recording } = props;
  const { state, problem } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const c = s.carrier;
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  return (
    <div className={classes.sentence}>
      <WhatSentence carrier={c} wrong={wrong} onChange={model.describe} />
      <br />
      near{" "}
      <QuantityField
        label="Centre"
        unit="Hz"
        value={s.centreHz}
        words={recording ? { anywhere: 0, any: 0 } : undefined}
        error={wrong("centreHz")}
        format={(v) => (v === 0 ? "anywhere" : formatHertz(v))}
        next={(v, up) => v + (up ? 0.1 : -0.1) * c.symbolRateHz}
        onCommit={(centreHz) => model.change({ centreHz })}
      />
      {s.centreHz !== 0 && (
        <>
          {" "}
          ±{" "}
          <QuantityField
            label="Search range"
            unit="Hz"
            value={s.searchHz}
            words={{ auto: 0 }}
            error={wrong("searchHz")}
            format={(v) => (v === 0 ? `auto, ${formatHertz(c.symbolRateHz / 4)}` : formatHertz(v))}
            onCommit={(searchHz) => model.change({ searchHz })}
          />
        </>
      )}
      <br />
      <QuantityField
        label="Result length"
        unit=""
        whole
        value={s.symbols}
        words={{ all: 0 }}
        error={wrong("symbols")}
        format={(v) => (v === 0 ? "all" : String(v))}
        onCommit={(symbols) => model.change({ symbols })}
      />{" "}
      symbols
      {recording && (
        <BeginField
          value={s.startSeconds}
          step={100 / c.symbolRateHz}
          error={wrong("startSeconds")}
          onCommit={(startSeconds) => model.change({ startSeconds })}
        />
      )}
      <br />
      <DataSentence carrier={c} onChange={model.describe} />
      <br />
      errors from{" "}
      <Choice
        label="Errors from"
        value={s.knownData ? "sent" : "decided"}
        choices={{ decided: "decisions", sent: "what was sent" }}
        onChange={(v) => model.change({ knownData: v === "sent" })}
      />{" "}
      in % of{" "}
      <Choice
        label="Errors in percent of"
        value={s.errorsOf}
        choices={{ mean: "mean power", outermost: "the outermost point" }}
        onChange={(errorsOf) => model.change({ errorsOf })}
      />
      <br />
      measuring filter{" "}
      <Choice
        label="Measuring filter"
        value={s.measuringFilter ?? MATCHED}
        choices={MEASURING}
        onChange={(v) =>
          model.change(
            v === MATCHED
              ? { measuringFilter: null, measuringParameter: null }
              : {
                  measuringFilter: v,
                  measuringParameter: firstParameter(v, s.measuringParameter ?? c.filterParameter),
                },
          )
        }
      />{" "}
      {s.measuringFilter && hasParameter(s.measuringFilter) && (
        <ParameterField
          label="Parameter of the measuring filter"
          value={s.measuringParameter ?? c.filterParameter}
          error={wrong("parameter")}
          onCommit={(measuringParameter) => model.change({ measuringParameter })}
        />
      )}
      {!keyed(c.format) && (
        <>
          <br />
          equalizer{" "}
          <Choice
            label="Equalizer"
            value={s.equalizer ?? "off"}
            choices={EQUALIZERS}
            onChange={model.equalize}
          />
          {s.equalizer === "trained" && (
            <>
              {" "}
              over ±{" "}
              <QuantityField
                label="Reach of the equalizer"
                unit=""
                whole
                value={s.equalizerReach ?? USUAL_REACH}
                error={wrong("equalizerReach")}
                next={(v, up) => Math.min(16, Math.max(1, v + (up ? 1 : -1)))}
                onCommit={(equalizerReach) => model.change({ equalizerReach })}
              />{" "}
              symbols
            </>
          )}
          <br />
          phase{" "}
          <QuantityField
            label="Phase followed over"
            unit=""
            whole
            value={s.trackSymbols ?? 0}
            words={{ whole: 0, off: 0 }}
            error={wrong("trackSymbols")}
            format={(v) => (v === 0 ? "of the whole result" : `followed over ${v} symbols`)}
            next={(v, up) => Math.max(8, v + (up ? 8 : -8))}
            onCommit={(trackSymbols) => model.change({ trackSymbols })}
          />
        </>
      )}
      <br />
      EVM at most{" "}
      <QuantityField
        label="Highest EVM"
        unit="%"
        value={s.evmLimitPercent ?? 0}
        words={{ any: 0, none: 0 }}
        error={wrong("evmLimitPercent")}
        format={(v) => (v === 0 ? "any" : `${v} %`)}
        next={(v, up) => Math.max(0, v + (up ? 0.5 : -0.5))}
        onCommit={(v) => model.change({ evmLimitPercent: v === 0 ? null : v })}
      />
      {!recording && (
        <>
          , reference level{" "}
          <QuantityField
            label="Reference level"
            unit="dBm"
            value={s.referenceLevelDbm}
            error={wrong("referenceLevelDbm")}
            next={(v, up) => v + (up ? 5 : -5)}
            onCommit={(referenceLevelDbm) => model.change({ referenceLevelDbm })}
          />
        </>
      )}
    </div>
  );
}
