import { Text } from "@mantine/core";
import type { AmplitudeSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { CentreField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import { HIGHEST, instantOf } from "./instant";
import type { SentenceProps } from "./kinds";
import { WINDOWS } from "./windows";

/** Which band is looked at over time, and of which instant the spectrum is, as one sentence. */
export function AmplitudeSentence({ model, recording }: SentenceProps<AmplitudeSettings>) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  const seconds = (v: number) => formatEngineering(v, "s", 6);
  const step = s.stretchSeconds || s.seconds / 100;
  return (
    <div className={classes.sentence}>
      near <CentreField of={of} step={0.1 * (s.bandHz || 1e6)} />
      <br />
      in a band of{" "}
      <QuantityField
        label="Band"
        unit="Hz"
        value={s.bandHz}
        words={recording ? { whole: 0, all: 0 } : undefined}
        error={wrong("bandHz")}
        format={(v) => (v === 0 ? "the whole" : formatHertz(v))}
        onCommit={(bandHz) => change({ bandHz })}
      />
      , <LengthField of={of} />
      <br />
      spectrum at{" "}
      <QuantityField
        label="Instant"
        unit="s"
        value={s.instantSeconds ?? HIGHEST}
        words={{ highest: HIGHEST, auto: HIGHEST }}
        error={wrong("instantSeconds")}
        format={(v) => (v === HIGHEST ? "the highest" : seconds(v))}
        next={(v, up) => Math.max(0, v + (up ? step : -step))}
        onCommit={(v) => change(instantOf(v))}
      />
      , of{" "}
      <QuantityField
        label="Stretch"
        unit="s"
        value={s.stretchSeconds}
        words={{ auto: 0, found: 0 }}
        error={wrong("stretchSeconds")}
        format={(v) => (v === 0 ? "what lasts there" : seconds(v))}
        next={(v, up) => (up ? 2 * (v || step) : v / 2)}
        onCommit={(stretchSeconds) => change({ stretchSeconds })}
      />
      ,{" "}
      <Choice
        label="Window"
        value={s.window}
        choices={WINDOWS}
        onChange={(window) => change({ window })}
      />
      <ReferenceLine of={of} />
    </div>
  );
}
