import { UnstyledButton } from "@mantine/core";
import { useState } from "react";
import type { CarrierDescription } from "../../api/client";
import { later } from "../../components/later";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import {
  FILTERS,
  FORMATS,
  firstParameter,
  hasDeviation,
  hasParameter,
  rateWords,
  SEQUENCES,
} from "./carrierWords";

const DataForm = later(async () => (await import("./DataForm")).DataForm);
const OWN = "own";

/** Takes a change of the description; what is wrong with it, "" for nothing. */
export type Describe = (part: Partial<CarrierDescription>) => Promise<string>;

/** Roll-off or B T of a filter. */
export function ParameterField(props: {
  label: string;
  value: number;
  error?: string;
  onCommit: (v: number) => unknown;
}) {
  return (
    <QuantityField
      label={props.label}
      unit=""
      value={props.value}
      error={props.error}
      format={(v) => String(v)}
      next={(v, up) => Number(Math.min(1, Math.max(0.01, v + (up ? 0.01 : -0.01))).toFixed(4))}
      onCommit={props.onCommit}
    />
  );
}

/** Format, rate and filter of a carrier. */
export function WhatSentence(props: {
  carrier: CarrierDescription;
  wrong: (field: string) => string | undefined;
  onChange: Describe;
}) {
  const { carrier: c, wrong, onChange } = props;
  return (
    <>
      <Choice
        label="Format"
        value={c.format}
        choices={FORMATS}
        onChange={(format) => onChange({ format })}
      />{" "}
      at{" "}
      <QuantityField
        label="Symbol rate"
        unit="Hz"
        value={c.symbolRateHz}
        error={wrong("symbolRateHz")}
        format={(v) => rateWords(formatHertz(v))}
        onCommit={(symbolRateHz) => onChange({ symbolRateHz })}
      />
      <br />
      {hasDeviation(c.format) && (
        <>
          deviation{" "}
          <QuantityField
            label="Deviation"
            unit="Hz"
            value={c.deviationHz ?? 0}
            error={wrong("deviationHz")}
            onCommit={(deviationHz) => onChange({ deviationHz })}
          />
          ,{" "}
        </>
      )}
      {c.format !== "msk" && (
        <Choice
          label="Filter"
          value={c.filter}
          choices={FILTERS}
          onChange={(filter) =>
            onChange({ filter, filterParameter: firstParameter(filter, c.filterParameter) })
          }
        />
      )}{" "}
      {hasParameter(c.filter) && (
        <ParameterField
          label={c.filter === "gaussian" ? "B T" : "Roll-off"}
          value={c.filterParameter}
          error={wrong("parameter")}
          onCommit={(filterParameter) => onChange({ filterParameter })}
        />
      )}
    </>
  );
}

/** What a carrier sends. */
export function DataSentence(props: { carrier: CarrierDescription; onChange: Describe }) {
  const { carrier: c, onChange } = props;
  const [asking, setAsking] = useState(false);
  const bits = c.bits ?? "";
  const word = c.word ?? "";
  const wordText = word ? `${word.length} bits every ${c.wordEverySymbols} symbols` : "none";
  return (
    <>
      data{" "}
      <Choice
        label="Data"
        value={bits ? OWN : String(c.prbs ?? 9)}
        choices={{ ...SEQUENCES, [OWN]: bits ? `own ${bits.length} bits` : "own bits ..." }}
        onChange={(v) => (v === OWN ? setAsking(true) : onChange({ prbs: Number(v), bits: null }))}
      />
      , known word{" "}
      <UnstyledButton
        aria-label={`Known word: ${wordText}`}
        style={{ borderBottom: "1.5px dotted var(--ink-soft)", fontSize: "0.92rem" }}
        onClick={() => setAsking(true)}
      >
        {wordText}
      </UnstyledButton>
      {asking && <DataForm carrier={c} onTake={onChange} onClose={() => setAsking(false)} />}
    </>
  );
}
