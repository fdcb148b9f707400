import { Alert, Button, Group, Menu, Text } from "@mantine/core";
import type { Instrument, Job } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, withMinus } from "../../components/units";
import { ControlField } from "../../desk/ControlField";
import { GuidedProgress } from "../../desk/GuidedProgress";
import { Hints } from "../../desk/Hints";
import { HookUpStep } from "../../desk/HookUpStep";
import { LevelStep } from "../../desk/LevelStep";
import { worstReading } from "../../desk/ReadingColumn";
import { RefusedSwitch } from "../../desk/RefusedSwitch";
import { SetupMenu } from "../../desk/SetupMenu";
import { Step } from "../../desk/Step";
import { TilesSentence } from "../../desk/TilesSentence";
import type { TileDesk } from "../../desk/tiles";
import { useControls } from "../../desk/useControls";
import { generatorOf, SignalStep, sideGeneratorOf } from "../waveforms/SignalStep";
import { NEIGHBOUR_PART, VOICE_PART, waveformOf } from "./firstWaveform";
import { ReceiverSentence } from "./ReceiverSentence";
import type { useLevel } from "./useLevel";
import type { ReceiverModel } from "./useReceiver";
import { WORKS, type Work, worksOf } from "./works";

/** The checklist of testing a receiver. */
export function ReceiverSteps(props: {
  job: Job | undefined;
  model: ReceiverModel;
  desk: TileDesk;
  instruments: Instrument[];
  sources: { value: string; label: string }[];
  source: string | null;
  level: ReturnType<typeof useLevel>;
  onSource: (source: string) => void;
  onWork: (work: Work) => void;
  onLastFinding?: () => void;
}) {
  const { job, model, instruments, level } = props;
  const { state, frame } = model;
  const running = state?.phase === "RUNNING";
  const instrument = instruments.find((i) => `i${i.id}` === props.source);
  const generator = generatorOf(job, instruments);
  const other = sideGeneratorOf(job, instruments);
  const worst = worstReading(frame?.outcome.readings ?? []);
  const facts = state?.facts;
  const voice = facts?.givesAudio && !facts.countsBits;
  return (
    <>
      <HookUpStep
        sources={props.sources}
        source={props.source}
        instrument={instrument}
        onSource={props.onSource}
      >
        {instrument && <Controls instrument={instrument} job={job} />}
      </HookUpStep>
      {generator ? (
        <SignalStep
          generator={generator}
          job={job}
          carrier={facts && waveformOf(facts)}
          part={voice ? VOICE_PART : undefined}
        >
          {instrument && <WhereItListens receiver={instrument} generator={generator} job={job} />}
        </SignalStep>
      ) : (
        <Step title="Signal" state="attention">
          <Text fz="sm">
            No vector generator is at the beginning of the path. Click its first element and choose
            one.
          </Text>
        </Step>
      )}
      {other && (
        <SignalStep
          title="Other signal"
          folded
          generator={other}
          job={job}
          carrier={facts && waveformOf(facts)}
          part={voice ? NEIGHBOUR_PART : undefined}
        />
      )}
      <LevelStep model={model} />
      <Step
        title="Settings"
        aside={
          job && (
            <SetupMenu
              job={job}
              kind="receiver"
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
        state="done"
      >
        <ReceiverSentence model={model} />
        <TilesSentence desk={props.desk} />
      </Step>
      <Step
        title="Measure"
        state={frame ? "done" : "open"}
        aside={
          <Group gap={4} wrap="nowrap">
            <Menu position="bottom-start" withinPortal>
              <Menu.Target>
                <Button size="compact-sm" variant="light" disabled={state?.guided != null}>
                  Guided
                </Button>
              </Menu.Target>
              <Menu.Dropdown>
                {worksOf(facts).map((w) => (
                  <Menu.Item key={w} onClick={() => props.onWork(w)}>
                    {WORKS[w]} ...
                  </Menu.Item>
                ))}
                {props.onLastFinding && (
                  <Menu.Item onClick={props.onLastFinding}>Show the last finding</Menu.Item>
                )}
              </Menu.Dropdown>
            </Menu>
            <Button
              size="compact-sm"
              variant={running ? "default" : "filled"}
              disabled={!state}
              onClick={() => (running ? model.hold() : model.start())}
            >
              {running ? "Hold" : state?.phase === "HELD" ? "Resume" : "Start"}
            </Button>
          </Group>
        }
      >
        {level.dbm !== null && (
          <div>
            level at the receiver{" "}
            <QuantityField
              label="Level at the receiver"
              unit="dBm"
              value={Math.round(level.dbm * 100) / 100}
              next={(v, up) => v + (up ? 1 : -1)}
              onCommit={level.set}
            />
          </div>
        )}
        {level.refused && (
          <RefusedSwitch
            why={level.refused.why}
            onLeave={level.leave}
            onTurn={level.refused.again}
          />
        )}
        {level.wrong && (
          <Alert color="red" variant="light" p={6} mt={3}>
            {level.wrong}
          </Alert>
        )}
        <GuidedProgress model={model} />
        <Text fz="sm">
          {(frame && withMinus(frame.outcome.summary)) ||
            (running && !frame ? "listening ..." : !frame && "nothing yet")}
        </Text>
      </Step>
      <Step
        title="Judge"
        state={worst?.verdict.startsWith("PASS") ? "done" : worst ? "attention" : "open"}
      >
        {!job && <Text fz="sm">Limits and kept runs need a job: make one with + at the top.</Text>}
        <Button size="compact-sm" mt={4} disabled={!frame || !job} onClick={() => model.keep()}>
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

/** A generator that sends elsewhere than the receiver listens is offered to be moved. */
function WhereItListens(props: {
  receiver: Instrument;
  generator: Instrument;
  job: Job | undefined;
}) {
  const { turn } = useControls(props.generator, props.job);
  const listens = props.receiver.facts.find((f) => f.unit === "Hz")?.value;
  const sends = Number(props.generator.controls.find((c) => c.id === "frequency")?.value);
  // With a converter between them the two are not the same.
  const shifted = props.job?.path.elements.some((e) => e.shiftHz) ?? false;
  if (!listens || shifted || Math.abs(sends / listens - 1) < 1e-5) {
    return null;
  }
  return (
    <Hints
      hints={[
        {
          sentence: `${props.receiver.name} listens at ${formatHertz(listens)}.`,
          offer: "Send it there",
          values: { frequency: String(listens) },
        },
      ]}
      onTake={turn}
    />
  );
}

/** What can be switched at the receiver itself. */
function Controls({ instrument, job }: { instrument: Instrument; job: Job | undefined }) {
  const { turn, wrong } = useControls(instrument, job);
  return (
    <>
      {instrument.controls.map((c) => (
        <div key={c.id} style={{ marginTop: 3, fontSize: "0.92rem" }}>
          <ControlField
            control={c}
            of={instrument.name}
            disabled={false}
            onSet={(value) => turn({ [c.id]: value })}
          />
        </div>
      ))}
      {wrong && (
        <Alert color="red" variant="light" p={6} mt={3}>
          {wrong}
        </Alert>
      )}
    </>
  );
}
