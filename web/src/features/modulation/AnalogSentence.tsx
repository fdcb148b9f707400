import { Text } from "@mantine/core";
import type { AnalogSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz } from "../../components/units";
import { AudioRange, DeEmphasis } from "../../desk/AudioFields";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { CentreField, ChannelField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import type { RecordsModel } from "./useRecords";

const MODULATIONS: Record<string, string> = { am: "AM", fm: "FM", pm: "PM" };

const AMOUNTS: Record<string, { name: string; unit: string }> = {
  am: { name: "depth", unit: "%" },
  fm: { name: "deviation", unit: "Hz" },
  pm: { name: "deviation", unit: "rad" },
};

/** What the carrier follows and how it is heard, as one sentence. */
export function AnalogSentence(props: { model: RecordsModel<AnalogSettings>; recording: boolean }) {
  const { model, recording } = props;
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const amount = AMOUNTS[s.modulation] ?? AMOUNTS.fm;
  const of = { settings: s, recording, wrong, change };
  return (
    <div className={classes.sentence}>
      <Choice
        label="Modulation"
        value={s.modulation}
        choices={MODULATIONS}
        onChange={(modulation) => change({ modulation, highestAmount: null })}
      />{" "}
      near <CentreField of={of} step={0.1 * s.bandHz} />
      <br />
      channel{" "}
      <ChannelField
        value={s.bandHz}
        error={wrong("bandHz")}
        onCommit={(bandHz) => change({ bandHz })}
      />
      , <LengthField of={of} />
      <br />
      audio from <AudioRange of={of} />
      <br />
      de-emphasis <DeEmphasis of={of} />,{" "}
      <Choice
        label="Weighting"
        value={s.weighted ? "ear" : "flat"}
        choices={{ flat: "not weighted", ear: "psophometric (ITU-T O.41)" }}
        onChange={(v) => change({ weighted: v === "ear" })}
      />
      <br />
      {amount.name} at most{" "}
      <QuantityField
        label={`Highest ${amount.name}`}
        unit={amount.unit}
        value={s.highestAmount ?? 0}
        words={{ any: 0, none: 0 }}
        error={wrong("highestAmount")}
        format={(v) =>
          v === 0 ? "any" : amount.unit === "Hz" ? formatHertz(v) : `${v} ${amount.unit}`
        }
        onCommit={(v) => change({ highestAmount: v === 0 ? null : v })}
      />
      , SINAD at least{" "}
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
      <ReferenceLine of={of} />
    </div>
  );
}
