import { QuantityField } from "../components/QuantityField";
import { formatEngineering, formatHertz } from "../components/units";

/** Settings that whatever is measured of single records has. */
export interface OfRecord {
  centreHz: number;
  seconds: number;
  startSeconds: number;
  referenceLevelDbm: number;
}

/** What a field of them is made with. */
export interface RecordPart {
  settings: OfRecord;
  /** Of a recording: it has a middle and a beginning, and no reference level. */
  recording: boolean;
  wrong: (field: string) => string | undefined;
  change: (part: Partial<OfRecord>) => unknown;
}

/** Middle of what is looked at. */
export function CentreField(props: {
  of: RecordPart;
  /** What an arrow moves it by, Hz. */
  step: number;
}) {
  const { settings, recording, wrong, change } = props.of;
  return (
    <QuantityField
      label="Centre"
      unit="Hz"
      value={settings.centreHz}
      words={recording ? { middle: 0 } : undefined}
      error={wrong("centreHz")}
      format={(v) => (v === 0 ? "the middle" : formatHertz(v))}
      next={(v, up) => v + (up ? 1 : -1) * props.step}
      onCommit={(centreHz) => change({ centreHz })}
    />
  );
}

/** How wide the channel is that is looked at. */
export function ChannelField(props: {
  value: number;
  error?: string;
  onCommit: (hertz: number) => unknown;
}) {
  return (
    <QuantityField
      label="Channel"
      unit="Hz"
      value={props.value}
      error={props.error}
      onCommit={props.onCommit}
    />
  );
}

/** "in a band of 2 MHz, over 50 ms": what is looked at, and for how long. */
export function BandAndLength(props: {
  of: RecordPart;
  bandHz: number;
  onBand: (hertz: number) => unknown;
}) {
  const { of, bandHz, onBand } = props;
  return (
    <>
      in a band of{" "}
      <QuantityField
        label="Band"
        unit="Hz"
        value={bandHz}
        error={of.wrong("bandHz")}
        onCommit={onBand}
      />
      , <LengthField of={of} />
    </>
  );
}

/** How long the result is, and of a recording where it begins. */
export function LengthField({ of }: { of: RecordPart }) {
  const { settings, recording, wrong, change } = of;
  return (
    <>
      over{" "}
      <QuantityField
        label="Result length"
        unit="s"
        value={settings.seconds}
        error={wrong("seconds")}
        format={(v) => formatEngineering(v, "s")}
        onCommit={(seconds) => change({ seconds })}
      />
      {recording && (
        <BeginField
          value={settings.startSeconds}
          step={settings.seconds / 2}
          error={wrong("startSeconds")}
          onCommit={(startSeconds) => change({ startSeconds })}
        />
      )}
    </>
  );
}

/** The highest level that is expected of a receiver; a recording has none. */
export function ReferenceLine({ of }: { of: RecordPart }) {
  const { settings, recording, wrong, change } = of;
  return recording ? null : (
    <ReferenceField
      value={settings.referenceLevelDbm}
      error={wrong("referenceLevelDbm")}
      onCommit={(referenceLevelDbm) => change({ referenceLevelDbm })}
    />
  );
}

/** The highest level that is expected, as the last line of a sentence of settings. */
export function ReferenceField(props: {
  value: number;
  error: string | undefined;
  onCommit: (referenceLevelDbm: number) => unknown;
}) {
  return (
    <>
      <br />
      reference level{" "}
      <QuantityField
        label="Reference level"
        unit="dBm"
        value={props.value}
        error={props.error}
        next={(v, up) => v + (up ? 5 : -5)}
        onCommit={props.onCommit}
      />
    </>
  );
}

/** Where in a recording the result begins. */
export function BeginField(props: {
  value: number;
  /** What an arrow moves it by, seconds. */
  step: number;
  error: string | undefined;
  onCommit: (startSeconds: number) => unknown;
}) {
  return (
    <>
      {" "}
      from{" "}
      <QuantityField
        label="Begin at"
        unit="s"
        value={props.value}
        error={props.error}
        next={(v, up) => Math.max(0, v + (up ? 1 : -1) * props.step)}
        onCommit={props.onCommit}
      />
    </>
  );
}
