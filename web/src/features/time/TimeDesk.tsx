import type { Job } from "../../api/client";
import { useCommands } from "../../app/commands";
import { useDeskParts } from "../../desk/useDeskParts";
import { KindChoice } from "../modulation/KindChoice";
import { RecordDesk } from "../modulation/RecordDesk";
import { actCommand, commonCommands, numberCommand } from "../modulation/recordCommands";
import { useRecordSources } from "../modulation/useRecordSources";
import { useRecords } from "../modulation/useRecords";
import { FIRST_CARRIER } from "../waveforms/parts";
import { TIME_KINDS, type TimeKind, type TimeMeasurement } from "./kinds";

/** Settings that each of these measurements has. */
interface Common {
  centreHz: number;
  seconds: number;
  referenceLevelDbm: number;
}

/** The desk of one measurement of things that come and go, of receivers and recordings. */
export function TimeDesk<S extends Common>(props: {
  job: Job | undefined;
  of: TimeMeasurement<S>;
  /** The others, with what is typed to come to each. */
  others: Pick<TimeMeasurement<S>, "kind" | "command">[];
  onKind: (kind: TimeKind) => void;
}) {
  const { job, of, onKind } = props;
  const hookUp = useRecordSources(job);
  const model = useRecords<S>(job, hookUp.source, of.kind);
  const settings = model.state?.settings;
  const special = settings && of.tilesFor?.(settings);
  const parts = useDeskParts(
    job,
    model,
    `time-${of.kind}${special ? `-${special.name}` : ""}`,
    special?.tiles ?? of.tiles,
  );
  const { change } = model;
  const set = (part: Partial<Common>) => change(part as Partial<S>);
  useCommands([
    numberCommand("centre", "middle of what is looked at", "Hz", (centreHz) => set({ centreHz }), {
      middle: 0,
    }),
    numberCommand("length", "of the result", "s", (seconds) => set({ seconds })),
    numberCommand("reference", "highest level expected", "dBm", (referenceLevelDbm) =>
      set({ referenceLevelDbm }),
    ),
    ...of.commands(change, model),
    ...props.others.map(({ kind, command }) =>
      actCommand(command.name, command.hint, () => onKind(kind)),
    ),
    ...commonCommands(model, { toggle: parts.toggle, open: () => parts.setOpening(true) }),
  ]);
  const recording = hookUp.source?.startsWith("r") ?? false;
  const { onPlace } = of;
  const desk = (
    <RecordDesk
      job={job}
      title="Time"
      kind={of.kind}
      kinds={<KindChoice kinds={TIME_KINDS} kind={of.kind} onKind={onKind} />}
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={FIRST_CARRIER}
      sentence={<of.Sentence model={model} recording={recording} job={job} />}
      onBand={of.onBand && ((band) => of.onBand?.(change, band))}
      onPlace={onPlace && { axis: onPlace.axis, take: (x) => onPlace.take(change, x) }}
    />
  );
  return of.Around ? (
    <of.Around job={job} model={model}>
      {desk}
    </of.Around>
  ) : (
    desk
  );
}
