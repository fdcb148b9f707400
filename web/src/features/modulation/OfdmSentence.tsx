import { Text } from "@mantine/core";
import type { OfdmSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { CentreField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import { DescriptionChoice } from "./DescriptionChoice";
import { WIDE_CHANNELS } from "./kinds";
import { TriggerSentence } from "./TriggerSentence";
import type { RecordsModel } from "./useRecords";

export const ESTIMATES = { training: "training", "training-and-data": "training and data" };

/** Which channel is searched and how its packets are read, as one sentence. */
export function OfdmSentence(props: { model: RecordsModel<OfdmSettings>; recording: boolean }) {
  const { model, recording } = props;
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  return (
    <div className={classes.sentence}>
      Frames{" "}
      <DescriptionChoice
        label="Frames"
        value={s.description}
        legacy="that say what they are"
        error={wrong("description")}
        onChange={(description) => change({ description })}
      />
      {!s.description && (
        <>
          {" "}
          in a channel of{" "}
          <Choice
            label="Channel width"
            value={String(s.channelHz)}
            choices={WIDE_CHANNELS}
            onChange={(v) => change({ channelHz: Number(v) })}
          />
        </>
      )}
      <br />
      {!s.description && (
        <>
          <TriggerSentence
            trigger={s.trigger}
            error={wrong("trigger")}
            onChange={(trigger) => change({ trigger })}
          />
          {!s.trigger && <br />}
        </>
      )}
      near <CentreField of={of} step={s.channelHz / 4} />, searched <LengthField of={of} />
      <br />
      show packet{" "}
      <QuantityField
        label="Packet"
        unit=""
        whole
        value={s.packet}
        error={wrong("packet")}
        next={(v, up) => Math.max(1, v + (up ? 1 : -1))}
        onCommit={(packet) => change({ packet })}
      />
      <br />
      channel from{" "}
      <Choice
        label="Channel from"
        value={s.estimate === "training" ? "training" : "training-and-data"}
        choices={ESTIMATES}
        onChange={(estimate) => change({ estimate })}
      />
      <br />
      phase{" "}
      <Choice
        label="Phase"
        value={s.trackPhase ? "on" : "off"}
        choices={{ on: "tracked by pilots", off: "not tracked" }}
        onChange={(v) => change({ trackPhase: v === "on" })}
      />
      , level{" "}
      <Choice
        label="Level"
        value={s.trackLevel ? "on" : "off"}
        choices={{ off: "not tracked", on: "tracked by pilots" }}
        onChange={(v) => change({ trackLevel: v === "on" })}
      />
      <ReferenceLine of={of} />
    </div>
  );
}
