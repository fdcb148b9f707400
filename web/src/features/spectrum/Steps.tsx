import { Button, Group, Text } from "@mantine/core";
import { api, type Instrument, type Job, type Problem } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, formatSeconds, step125 } from "../../components/units";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { GuidedProgress } from "../../desk/GuidedProgress";
import { HookUpStep } from "../../desk/HookUpStep";
import { LimitsSentence } from "../../desk/LimitsSentence";
import { worstReading } from "../../desk/ReadingColumn";
import { ReferenceField } from "../../desk/RecordFields";
import { SetupMenu } from "../../desk/SetupMenu";
import { Step } from "../../desk/Step";
import { TilesSentence } from "../../desk/TilesSentence";
import type { TileDesk } from "../../desk/tiles";
import { DETECTORS, WINDOWS } from "./choices";
import { GuidedMenu } from "./GuidedMenu";
import { LevelSentence } from "./LevelSentence";
import { Levels } from "./Levels";
import type { SpectrumModel } from "./useSpectrum";

/** Lengths of a transform; without one the RBW decides. */
const LENGTHS: Record<string, string> = {
  "0": "length by RBW",
  ...Object.fromEntries(
    [10, 11, 12, 13, 14, 15, 16, 17, 18, 19].map((n) => [
      String(1 << n),
      `${(1 << (n - 10)).toString()} Ki points`,
    ]),
  ),
};

interface Props {
  job: Job | undefined;
  model: SpectrumModel;
  desk: TileDesk;
  sources: { value: string; label: string }[];
  source: string | null;
  instrument: Instrument | undefined;
  onSource: (source: string) => void;
  onOpenRecording: () => void;
  /** Shows the newest finding again; undefined if there is none to show. */
  onLastFinding?: () => void;
}

/** The checklist of this measurement; it guides and never stands in the way. */
export function Steps(props: Props) {
  const { model, instrument } = props;
  const { state, frame } = model;
  const recording = props.source?.startsWith("r") ?? false;
  const marks = frame?.header.marks ?? [];
  const worst = worstReading(frame?.header.readings ?? []);
  const running = state?.phase === "RUNNING";
  // A frame of the settings before says nothing of how far the present ones have come.
  const asked = state?.settings;
  const now = frame?.header.settings;
  const fresh = asked?.centreHz === now?.centreHz && asked?.spanHz === now?.spanHz;
  const averaged =
    frame && fresh ? Math.min(frame.header.segments, frame.header.settings.averages) : 0;
  const wanted = frame?.header.settings.averages ?? 0;
  const stitched = state != null && state.settings.spanHz > state.facts.widestAtOnceHz * 1.000001;
  return (
    <>
      <HookUpStep
        sources={props.sources}
        source={props.source}
        instrument={instrument}
        onSource={props.onSource}
        onOpenRecording={props.onOpenRecording}
      />
      <Levels job={props.job} model={model} recording={recording} />
      <Step
        title="Settings"
        aside={
          props.job && (
            <SetupMenu
              job={props.job}
              kind="spectrum"
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
        state={model.problem && isSetting(model.problem) ? "attention" : "done"}
      >
        <Sentence {...props} recording={recording} />
        <TilesSentence desk={props.desk} />
      </Step>
      <Step
        title="Check"
        state={marks.length ? "attention" : frame ? "done" : "open"}
        aside={marks.length ? "" : frame ? "no overload" : "not yet seen"}
      >
        {marks.length > 0 && <Text fz="sm">{advice(marks, recording)}</Text>}
      </Step>
      <Step
        title="Measure"
        state={
          frame && fresh && (stitched ? frame.header.progress >= 1 : averaged >= wanted)
            ? "done"
            : state?.phase === "REFUSED"
              ? "attention"
              : "open"
        }
        aside={
          !recording && (
            <Group gap={4} wrap="nowrap">
              <GuidedMenu model={model} onLastFinding={props.onLastFinding} />
              <Button
                size="compact-sm"
                variant={running ? "default" : "filled"}
                disabled={!state}
                onClick={() => (running ? model.hold() : model.start())}
              >
                {running ? "Hold" : state?.phase === "HELD" ? "Resume" : "Start"}
              </Button>
            </Group>
          )
        }
      >
        <GuidedProgress
          model={model}
          scanning={frame && frame.header.progress < 1 ? frame.header : null}
        />
        {!recording && !state?.guided && (
          <Text fz="sm" className="figures">
            {!frame
              ? "nothing yet"
              : stitched
                ? `${frame.header.segments} averages a step`
                : `average ${averaged} of ${wanted}`}
          </Text>
        )}
        {recording && (
          <Text fz="sm">
            {frame ? `${frame.header.segments} spectra averaged` : "computing ..."}
          </Text>
        )}
      </Step>
      <Step
        title="Judge"
        state={worst?.verdict.startsWith("PASS") ? "done" : worst ? "attention" : "open"}
      >
        {props.job ? (
          <LimitsSentence job={props.job} />
        ) : (
          <Text fz="sm">Limits and kept runs need a job: make one with + at the top.</Text>
        )}
        <Group gap={6} mt={4}>
          <Button size="compact-sm" disabled={!frame || !props.job} onClick={() => model.keep()}>
            Keep this run
          </Button>
          <SaveRecording source={props.source} disabled={!frame} onWrong={model.setProblem} />
        </Group>
        {model.note && (
          <Text fz="sm" role="status">
            {model.note}
          </Text>
        )}
      </Step>
    </>
  );
}

function isSetting(problem: Problem): boolean {
  return !["levelPlan", "holder", "instrument", "state", ""].includes(problem.field);
}

function advice(marks: string[], recording: boolean): string {
  if (marks.includes("input protection tripped")) {
    return "The receiver has switched its input off. Lower the level, then clear the protection at the Bench.";
  }
  return recording
    ? "The recording clips: its levels are not to be trusted."
    : "The receiver overloads. Raise the reference level or add a pad.";
}

function Sentence(props: Props & { recording: boolean }) {
  const { model, recording } = props;
  const { state, frame, problem } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const startHz = s.centreHz - s.spanHz / 2;
  const stopHz = s.centreHz + s.spanHz / 2;
  const edges = (a: number, b: number) => model.change({ centreHz: (a + b) / 2, spanHz: b - a });
  const rbw = frame ? Number(frame.header.rbwHz.toPrecision(3)) : s.spanHz / 1000;
  return (
    <div className={classes.sentence}>
      centre{" "}
      <QuantityField
        label="Centre"
        unit="Hz"
        value={s.centreHz}
        error={wrong("centreHz")}
        next={(v, up) => v + (up ? 0.1 : -0.1) * s.spanHz}
        onCommit={(centreHz) => model.change({ centreHz })}
      />
      , span{" "}
      <QuantityField
        label="Span"
        unit="Hz"
        value={s.spanHz}
        error={wrong("spanHz")}
        next={(v, up) => Math.min(step125(v, up), Math.max(v, state.facts.widestSpanHz))}
        onCommit={(spanHz) => model.change({ spanHz })}
      />
      <br />
      from{" "}
      <QuantityField label="Start" unit="Hz" value={startHz} onCommit={(v) => edges(v, stopHz)} />{" "}
      to <QuantityField label="Stop" unit="Hz" value={stopHz} onCommit={(v) => edges(startHz, v)} />
      <br />
      RBW{" "}
      <QuantityField
        label="RBW"
        unit="Hz"
        value={s.rbwHz}
        words={{ auto: 0, automatic: 0 }}
        error={wrong("rbwHz")}
        format={(v) => (v === 0 || s.fftLength ? `auto, ${formatHertz(rbw)}` : formatHertz(v))}
        next={(v, up) => step125(v === 0 ? rbw : v, up)}
        onCommit={(rbwHz) => model.change({ rbwHz, fftLength: 0 })}
      />{" "}
      <Choice
        label="Window"
        value={s.window}
        choices={WINDOWS}
        onChange={(window) => model.change({ window })}
      />
      <br />
      average{" "}
      <QuantityField
        label="Averages"
        unit=""
        whole
        value={s.averages}
        error={wrong("averages")}
        format={(v) => String(v)}
        next={(v, up) => Math.max(1, Math.round(step125(v, up)))}
        onCommit={(v) => model.change({ averages: v })}
      />{" "}
      <Choice
        label="Detector"
        value={s.detector}
        choices={DETECTORS}
        onChange={(detector) => model.change({ detector })}
      />
      {!recording && (
        <ReferenceField
          value={s.referenceLevelDbm}
          error={wrong("referenceLevelDbm")}
          onCommit={(referenceLevelDbm) => model.change({ referenceLevelDbm })}
        />
      )}
      <br />
      channel{" "}
      <QuantityField
        label="Channel width"
        unit="Hz"
        value={s.channelWidthHz}
        error={wrong("channelWidthHz")}
        onCommit={(channelWidthHz) => model.change({ channelWidthHz })}
      />
      <LevelSentence model={model} inputs={props.instrument?.inputs ?? 1} />
      {frame && (
        <div className={classes.small}>
          {frame.header.fftLength > 0 && (
            <Choice
              label="Points of one transform"
              value={String(s.fftLength ?? 0)}
              choices={LENGTHS}
              onChange={(v) => model.change({ fftLength: Number(v) })}
            />
          )}
          {frame.header.fftLength > 0 && ", "}
          {frame.header.points} points shown; a {frame.header.fftLength > 0 ? "record" : "sweep"} of{" "}
          {formatSeconds(frame.header.recordSeconds)}
          {frame.header.attenuationDb !== null && `; attenuator ${frame.header.attenuationDb} dB`}
        </div>
      )}
    </div>
  );
}

function SaveRecording(props: {
  source: string | null;
  disabled: boolean;
  onWrong: (p: Problem) => void;
}) {
  const save = async () => {
    try {
      const made = await api.post<{ id: number }>(`/api/live/${props.source}/spectrum/save`);
      for (const part of ["sigmf-meta", "sigmf-data"]) {
        const link = document.createElement("a");
        link.href = `/api/recordings/${made.id}/${part}`;
        link.download = "";
        link.click();
        await new Promise((resolve) => setTimeout(resolve, 400));
      }
    } catch (e) {
      props.onWrong(e as Problem);
    }
  };
  return (
    <Button size="compact-sm" variant="default" disabled={props.disabled} onClick={save}>
      Save IQ
    </Button>
  );
}
