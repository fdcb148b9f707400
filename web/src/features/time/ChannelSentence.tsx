import { Text } from "@mantine/core";
import type { ChannelSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, signed } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { CentreField, LengthField, ReferenceLine } from "../../desk/RecordFields";
import type { SentenceProps } from "./kinds";

/** Which channels are looked at, as one sentence. */
export function ChannelSentence({ model, recording }: SentenceProps<ChannelSettings>) {
  const { state, problem, change } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: s, recording, wrong, change };
  return (
    <div className={classes.sentence}>
      own channel near <CentreField of={of} step={s.channelHz} />, span{" "}
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
      channels{" "}
      <QuantityField
        label="Channels apart"
        unit="Hz"
        value={s.channelHz}
        error={wrong("channelHz")}
        onCommit={(channelHz) => change({ channelHz })}
      />{" "}
      apart, power in{" "}
      <QuantityField
        label="Power in"
        unit="Hz"
        value={s.bandHz}
        words={{ auto: 0 }}
        error={wrong("bandHz")}
        format={(v) =>
          v === 0 ? `auto, ${formatHertz((2 * s.channelHz) / 3, 3)}` : formatHertz(v)
        }
        onCommit={(bandHz) => change({ bandHz })}
      />
      <br />
      counted from{" "}
      <QuantityField
        label="Channel 1"
        unit="Hz"
        value={s.firstHz}
        words={{ own: 0 }}
        error={wrong("firstHz")}
        format={(v) => (v === 0 ? "the own, 0" : `${formatHertz(v)}, 1`)}
        next={(v, up) => v + (up ? 1 : -1) * s.channelHz}
        onCommit={(firstHz) => change({ firstHz })}
      />
      <br />
      <LengthField of={of} />, used if{" "}
      <QuantityField
        label="Threshold over noise"
        unit="dB"
        value={s.overNoiseDb ?? 0}
        words={{ found: 0 }}
        error={wrong("overNoiseDb")}
        format={(v) => (v === 0 ? "over chance" : `${v} dB over noise`)}
        next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
        onCommit={(v) => change({ overNoiseDb: v === 0 ? null : v })}
      />
      <br />
      neighbours at most{" "}
      <QuantityField
        label="Neighbours at most"
        unit="dB"
        value={s.mostNeighbourDb ?? 0}
        words={{ any: 0 }}
        error={wrong("mostNeighbourDb")}
        format={(v) => (v === 0 ? "any" : `${signed(v)} dB`)}
        onCommit={(v) => change({ mostNeighbourDb: v === 0 ? null : v })}
      />
      <ReferenceLine of={of} />
    </div>
  );
}
