import { Alert, Button, Text } from "@mantine/core";
import { type ReactNode, useState } from "react";
import type { CarrierDescription, Instrument, Job, WaveformPart } from "../../api/client";
import { later } from "../../components/later";
import { ControlField } from "../../desk/ControlField";
import { Hints } from "../../desk/Hints";
import { factWords } from "../../desk/outcomes";
import { RefusedSwitch } from "../../desk/RefusedSwitch";
import { Step } from "../../desk/Step";
import { useControls } from "../../desk/useControls";

const WaveformDialog = later(async () => (await import("./WaveformDialog")).WaveformDialog);

/** The generator that the job's path begins at, if it begins at one. */
export const generatorOf = (job: Job | undefined, instruments: Instrument[]) =>
  instruments.find(
    (i) => i.kind === "SIGNAL_GENERATOR" && i.id === job?.path.elements[0]?.instrumentId,
  );

/** The source that feeds what the job's path begins at. */
export const feedOf = (job: Job | undefined, instruments: Instrument[]) =>
  instruments.find(
    (i) => i.kind === "FUNCTION_SOURCE" && i.id === job?.path.elements[0]?.instrumentId,
  );

/** The generator at the other input of a combiner of the path. */
export const sideGeneratorOf = (job: Job | undefined, instruments: Instrument[]) =>
  instruments.find(
    (i) =>
      i.kind === "SIGNAL_GENERATOR" &&
      job?.path.elements.some((e) => e.kind === "COMBINER" && e.instrumentId === i.id),
  );

/** What a generator of the path puts out. */
export function SignalStep(props: {
  generator: Instrument;
  job: Job | undefined;
  carrier: CarrierDescription | undefined;
  title?: string;
  /** Only its switch is shown while it is off. */
  folded?: boolean;
  /** Part that a new waveform begins with. */
  part?: Partial<WaveformPart>;
  /** What else is to be said of it. */
  children?: ReactNode;
}) {
  const { generator: g, job, carrier } = props;
  const [asking, setAsking] = useState(false);
  const { turn, refused, leave, wrong } = useControls(g, job);
  const here = g.state === "CONNECTED" || g.state === "BUSY";
  const on = g.controls.find((c) => c.id === "output")?.value === "on";
  const shown = on || !props.folded;
  return (
    <Step
      title={props.title ?? "Signal"}
      state={!here || wrong ? "attention" : on ? (g.hints.length ? "attention" : "done") : "open"}
      aside={
        carrier &&
        g.kind === "SIGNAL_GENERATOR" && (
          <Button
            size="compact-xs"
            variant="subtle"
            disabled={!here}
            onClick={() => setAsking(true)}
          >
            Waveform ...
          </Button>
        )
      }
    >
      {!here && <Text fz="sm">{g.name} is not connected.</Text>}
      {g.controls
        .filter((c) => !c.minor && c.form !== "ACTION" && (shown || c.id === "output"))
        .map((c) => (
          <div key={c.id} style={{ marginTop: 2, fontSize: "0.92rem" }}>
            <ControlField
              control={c}
              of={g.name}
              disabled={!here}
              onSet={(value) => turn({ [c.id]: value })}
            />
          </div>
        ))}
      {(shown ? g.facts : []).map((f) => (
        <Text key={f.label} fz="sm" className="figures">
          {factWords(f)}
        </Text>
      ))}
      {shown && <Hints hints={g.hints} onTake={turn} />}
      {shown && props.children}
      {refused && <RefusedSwitch why={refused.why} onLeave={leave} onTurn={refused.again} />}
      {wrong && (
        <Alert color="red" variant="light" p={6} mt={3}>
          {wrong}
        </Alert>
      )}
      {asking && carrier && (
        <WaveformDialog
          generator={g}
          job={job}
          carrier={carrier}
          part={props.part}
          onClose={() => setAsking(false)}
        />
      )}
    </Step>
  );
}
