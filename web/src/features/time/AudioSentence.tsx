import { Text } from "@mantine/core";
import type { ListenSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { AudioRange, DeEmphasis } from "../../desk/AudioFields";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { CentreField, ChannelField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import { HearLine } from "./HearLine";
import type { SentenceProps } from "./kinds";
import { laneOf, MODES, SQUELCHES, squelchBy } from "./listening";

/** How a channel is heard, when, and its sound, as one sentence. */
export function AudioSentence({ model, recording }: SentenceProps<ListenSettings>) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  const oneSide = s.mode === "usb" || s.mode === "lsb";
  const levels = model.frame?.outcome.series.find((x) => x.id === "level")?.unit ?? "dBm";
  const unit = { level: levels, quieting: "dB", tone: "Hz" }[s.squelchBy];
  return (
    <div className={classes.sentence}>
      <Choice
        label="Heard as"
        value={s.mode}
        choices={MODES}
        onChange={(mode) => change({ mode })}
      />{" "}
      {oneSide ? "beside" : "at"} <CentreField of={of} step={s.bandHz} />
      <br />
      channel{" "}
      <ChannelField
        value={s.bandHz}
        error={wrong("bandHz")}
        onCommit={(bandHz) => change({ bandHz })}
      />
      , <LengthField of={of} />
      <br />
      sound from <AudioRange of={of} />
      <br />
      de-emphasis <DeEmphasis of={of} />
      <br />
      squelch{" "}
      <Choice
        label="Squelch"
        value={s.squelchBy}
        choices={SQUELCHES}
        onChange={(by) => change(squelchBy(by))}
      />
      {unit && (
        <>
          {" "}
          <QuantityField
            label="Squelch opens at"
            unit={unit}
            value={s.squelch}
            error={wrong("squelch")}
            format={(v) => `${v} ${unit}`}
            next={(v, up) => v + (up ? 1 : -1)}
            onCommit={(squelch) => change({ squelch })}
          />
        </>
      )}
      <ReferenceLine of={of} />
      <HearLine
        url={model.url}
        ready={model.frame != null}
        lane={laneOf(model)}
        fails={model.setProblem}
      />
    </div>
  );
}
