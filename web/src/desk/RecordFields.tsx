import { QuantityField } from "../components/QuantityField";

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
