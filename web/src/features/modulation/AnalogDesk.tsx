import type { AnalogSettings, Job, Tiles } from "../../api/client";
import { useDeskParts } from "../../desk/useDeskParts";
import { FIRST_CARRIER } from "../waveforms/parts";
import { AnalogSentence } from "./AnalogSentence";
import { GuidedMenu } from "./GuidedMenu";
import { KindChoice } from "./KindChoice";
import { KINDS, type Kind } from "./kinds";
import { RecordDesk } from "./RecordDesk";
import { useAnalogCommands } from "./useAnalogCommands";
import { useRecordSources } from "./useRecordSources";
import { useRecords } from "./useRecords";

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "audio", view: "curve" },
    { what: "spectrum", view: "curve" },
    { what: "audioSpectrum", view: "curve" },
    { what: "table:harmonics", view: "table" },
    { what: "envelope", view: "curve" },
    { what: "frequency", view: "curve" },
  ],
};

/** A carrier that follows something analog. */
export function AnalogDesk(props: { job: Job | undefined; onKind: (kind: Kind) => void }) {
  const { job } = props;
  const hookUp = useRecordSources(job);
  const model = useRecords<AnalogSettings>(job, hookUp.source, "analog");
  const parts = useDeskParts(job, model, "modulation-analog", FIRST_TILES);
  useAnalogCommands(model, {
    toggle: parts.toggle,
    open: () => parts.setOpening(true),
    data: () => props.onKind("single-carrier"),
    packets: () => props.onKind("ofdm"),
  });
  const recording = hookUp.source?.startsWith("r") ?? false;
  return (
    <RecordDesk
      job={job}
      title="Modulation"
      kind="analog"
      kinds={<KindChoice kinds={KINDS} kind="analog" onKind={props.onKind} />}
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={FIRST_CARRIER}
      sentence={<AnalogSentence model={model} recording={recording} />}
      guided={(again) => <GuidedMenu model={model} recording={recording} onLastFinding={again} />}
    />
  );
}
