import { Button, Group, Text, UnstyledButton } from "@mantine/core";
import type { ReactNode } from "react";
import type { CarrierDescription, Instrument, Job } from "../../api/client";
import { useStats } from "../../api/live";
import { formatHertz, formatSeconds, withMinus } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { GuidedProgress } from "../../desk/GuidedProgress";
import { HookUpStep } from "../../desk/HookUpStep";
import { LevelStep } from "../../desk/LevelStep";
import { LimitsSentence } from "../../desk/LimitsSentence";
import { worstReading } from "../../desk/ReadingColumn";
import { SetupMenu } from "../../desk/SetupMenu";
import { Step } from "../../desk/Step";
import { TilesSentence } from "../../desk/TilesSentence";
import type { TileDesk } from "../../desk/tiles";
import { SignalStep } from "../waveforms/SignalStep";
import type { RecordsModel } from "./useRecords";

interface Props<S extends object> {
  job: Job | undefined;
  kind: string;
  /** What else can be measured of the same record. */
  kinds: ReactNode;
  model: RecordsModel<S>;
  desk: TileDesk;
  sources: { value: string; label: string }[];
  source: string | null;
  instrument: Instrument | undefined;
  /** The one that the path begins at. */
  generator: Instrument | undefined;
  /** What a new waveform begins with. */
  carrier: CarrierDescription | undefined;
  sentence: ReactNode;
  guided: ReactNode;
  onSource: (source: string) => void;
  onOpenRecording: () => void;
}

const ELSEWHERE = ["levelPlan", "holder", "instrument", "state", ""];

/** The checklist of measuring a carrier. */
export function Steps<S extends object>(props: Props<S>) {
  const { model, instrument, job } = props;
  const { state, frame } = model;
  const recording = props.source?.startsWith("r") ?? false;
  const running = state?.phase === "RUNNING";
  const refused = frame?.view.refused ?? "";
  const marks = frame?.outcome.marks ?? [];
  const worst = refused ? null : worstReading(frame?.outcome.readings ?? []);
  const looks = useStats(model.store).looksPerSecond;
  const facts = frame?.view.facts;
  // What goes on knows itself how much of the time it has seen; between records nothing is seen.
  const ongoing = frame?.outcome.readings.some((r) => r.id === "seen") ?? false;
  const seen =
    running && !ongoing && facts && looks > 0
      ? Math.min(100, 100 * looks * (facts.samples / facts.sampleRateHz))
      : null;
  const wrong = model.problem && !ELSEWHERE.includes(model.problem.field);
  return (
    <>
      <HookUpStep
        sources={props.sources}
        source={props.source}
        instrument={instrument}
        onSource={props.onSource}
        onOpenRecording={props.onOpenRecording}
      />
      {!recording && props.generator && (
        <SignalStep
          generator={props.generator}
          job={job}
          carrier={props.carrier}
          title={props.generator.kind === "FUNCTION_SOURCE" ? "Supply" : undefined}
        />
      )}
      {!recording && <LevelStep model={model} />}
      <Step
        title="Settings"
        aside={
          job && (
            <SetupMenu
              job={job}
              kind={props.kind}
              settings={state?.settings}
              tiles={props.desk.tiles}
              onTake={(settings, tiles) => {
                model.change(settings);
                tiles && props.desk.set(tiles);
              }}
              onWrong={model.setProblem}
            />
          )
        }
        state={wrong || (refused && frame?.view.field) ? "attention" : "done"}
      >
        {props.kinds}
        {props.sentence}
        <TilesSentence desk={props.desk} />
      </Step>
      <Step
        title="Measure"
        state={refused || marks.length ? "attention" : frame ? "done" : "open"}
        aside={
          <Group gap={4} wrap="nowrap">
            {props.guided}
            {!recording && (
              <Button
                size="compact-sm"
                variant={running ? "default" : "filled"}
                disabled={!state}
                onClick={() => (running ? model.hold() : model.start())}
              >
                {running ? "Hold" : state?.phase === "HELD" ? "Resume" : "Start"}
              </Button>
            )}
          </Group>
        }
      >
        <GuidedProgress model={model} />
        {refused ? (
          <Text fz="sm">{refused}</Text>
        ) : frame ? (
          <div className={classes.small}>
            {withMinus(frame.outcome.summary)}{" "}
            {ongoing
              ? "Sampled"
              : `A record of ${formatSeconds(frame.view.facts.samples / frame.view.facts.sampleRateHz)}`}{" "}
            at {formatHertz(frame.view.facts.sampleRateHz)}
            {frame.view.facts.attenuationDb !== null &&
              `; attenuator ${frame.view.facts.attenuationDb} dB`}
            {seen !== null && `; ${Number(seen.toPrecision(2))} % of the time is seen`}
            {marks.length > 0 && `; ${marks.join(", ")}`}
            {frame.view.facts.fittingReferenceDbm !== null && (
              <>
                ;{" "}
                <UnstyledButton
                  style={{ textDecoration: "underline", fontSize: "inherit" }}
                  onClick={model.fitLevel}
                >
                  fit the level
                </UnstyledButton>
              </>
            )}
          </div>
        ) : (
          <Text fz="sm">{state?.phase === "RUNNING" ? "measuring ..." : "nothing yet"}</Text>
        )}
      </Step>
      <Step
        title="Judge"
        state={worst?.verdict.startsWith("PASS") ? "done" : worst ? "attention" : "open"}
      >
        {job ? (
          <LimitsSentence job={job} />
        ) : (
          <Text fz="sm">Limits and kept runs need a job: make one with + at the top.</Text>
        )}
        <Button
          size="compact-sm"
          mt={4}
          disabled={!frame || !job || refused !== ""}
          onClick={() => model.keep()}
        >
          Keep this run
        </Button>
        {model.note && (
          <Text fz="sm" role="status">
            {model.note}
          </Text>
        )}
      </Step>
    </>
  );
}
