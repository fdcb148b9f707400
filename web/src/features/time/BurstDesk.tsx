import type { BurstSettings, Job, Tiles } from "../../api/client";
import { useDeskParts } from "../../desk/useDeskParts";
import { KindChoice } from "../modulation/KindChoice";
import { RecordDesk } from "../modulation/RecordDesk";
import { useRecordSources } from "../modulation/useRecordSources";
import { useRecords } from "../modulation/useRecords";
import { FIRST_CARRIER } from "../waveforms/parts";
import { BurstSentence } from "./BurstSentence";
import { TIME_KINDS, type TimeKind } from "./kinds";
import { useBurstCommands } from "./useBurstCommands";

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "amplitude", view: "curve" },
    { what: "table:bursts", view: "table" },
    { what: "burst", view: "curve" },
    { what: "late", view: "curve" },
  ],
};

/** Bursts in a band, of receivers and recordings. */
export function BurstDesk(props: { job: Job | undefined; onKind: (kind: TimeKind) => void }) {
  const { job } = props;
  const hookUp = useRecordSources(job);
  const model = useRecords<BurstSettings>(job, hookUp.source, "bursts");
  const parts = useDeskParts(job, model, "time-bursts", FIRST_TILES);
  useBurstCommands(model, {
    toggle: parts.toggle,
    open: () => parts.setOpening(true),
    density: () => props.onKind("density"),
  });
  const recording = hookUp.source?.startsWith("r") ?? false;
  return (
    <RecordDesk
      job={job}
      title="Time"
      kind="bursts"
      kinds={<KindChoice kinds={TIME_KINDS} kind="bursts" onKind={props.onKind} />}
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={FIRST_CARRIER}
      sentence={<BurstSentence model={model} recording={recording} />}
    />
  );
}
