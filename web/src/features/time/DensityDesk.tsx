import type { DensitySettings, Job, Tiles } from "../../api/client";
import { useDeskParts } from "../../desk/useDeskParts";
import { KindChoice } from "../modulation/KindChoice";
import { RecordDesk } from "../modulation/RecordDesk";
import { useRecordSources } from "../modulation/useRecordSources";
import { useRecords } from "../modulation/useRecords";
import { FIRST_CARRIER } from "../waveforms/parts";
import { DensitySentence } from "./DensitySentence";
import { TIME_KINDS, type TimeKind } from "./kinds";
import { useDensityCommands } from "./useDensityCommands";

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "density", view: "matrix" },
    { what: "all", view: "curve" },
    { what: "history", view: "matrix" },
    { what: "table:there", view: "table" },
    { what: "table:sure", view: "table" },
  ],
};

/** How often each frequency has which level, and when. */
export function DensityDesk(props: { job: Job | undefined; onKind: (kind: TimeKind) => void }) {
  const { job } = props;
  const hookUp = useRecordSources(job);
  const model = useRecords<DensitySettings>(job, hookUp.source, "density");
  const parts = useDeskParts(job, model, "time-density", FIRST_TILES);
  useDensityCommands(model, {
    toggle: parts.toggle,
    open: () => parts.setOpening(true),
    bursts: () => props.onKind("bursts"),
  });
  const recording = hookUp.source?.startsWith("r") ?? false;
  return (
    <RecordDesk
      job={job}
      title="Time"
      kind="density"
      kinds={<KindChoice kinds={TIME_KINDS} kind="density" onKind={props.onKind} />}
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={FIRST_CARRIER}
      sentence={<DensitySentence model={model} recording={recording} />}
    />
  );
}
