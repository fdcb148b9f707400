import type { BurstSettings, Job, Tiles } from "../../api/client";
import { useDeskParts } from "../../desk/useDeskParts";
import { RecordDesk } from "../modulation/RecordDesk";
import { useRecordSources } from "../modulation/useRecordSources";
import { useRecords } from "../modulation/useRecords";
import { FIRST_CARRIER } from "../waveforms/parts";
import { BurstSentence } from "./BurstSentence";
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

/** What comes and goes in a band: bursts of receivers and recordings. */
export function TimePage({ job }: { job: Job | undefined }) {
  const hookUp = useRecordSources(job);
  const model = useRecords<BurstSettings>(job, hookUp.source, "bursts");
  const parts = useDeskParts(job, model, "time-bursts", FIRST_TILES);
  useBurstCommands(model, { toggle: parts.toggle, open: () => parts.setOpening(true) });
  const recording = hookUp.source?.startsWith("r") ?? false;
  return (
    <RecordDesk
      job={job}
      title="Time"
      kind="bursts"
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={FIRST_CARRIER}
      sentence={<BurstSentence model={model} recording={recording} />}
    />
  );
}
