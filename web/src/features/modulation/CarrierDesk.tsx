import type { Job, Tiles } from "../../api/client";
import { useDeskParts } from "../../desk/useDeskParts";
import { CarrierSentence } from "./CarrierSentence";
import { GuidedMenu } from "./GuidedMenu";
import { KindChoice } from "./KindChoice";
import { KINDS, type Kind } from "./kinds";
import { RecordDesk } from "./RecordDesk";
import { useModulation } from "./useModulation";
import { useModulationCommands } from "./useModulationCommands";
import { useRecordSources } from "./useRecordSources";
import { useWhatIsIt } from "./useWhatIsIt";

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "points", view: "points" },
    { what: "table:causes", view: "table" },
    { what: "eyeI", view: "matrix" },
    { what: "symbols", view: "symbols" },
    { what: "error", view: "curve" },
    { what: "errorSpectrum", view: "curve" },
  ],
};

/** A carrier with data. */
export function CarrierDesk(props: { job: Job | undefined; onKind: (kind: Kind) => void }) {
  const { job } = props;
  const hookUp = useRecordSources(job);
  const model = useModulation(job, hookUp.source);
  const parts = useDeskParts(job, model, "modulation", FIRST_TILES);
  const what = useWhatIsIt(model, hookUp.source);
  useModulationCommands(model, {
    toggle: parts.toggle,
    open: () => parts.setOpening(true),
    whatIsIt: what.ask,
    analog: () => props.onKind("analog"),
    packets: () => props.onKind("ofdm"),
  });
  const recording = hookUp.source?.startsWith("r") ?? false;
  return (
    <RecordDesk
      job={job}
      title="Modulation"
      kind="single-carrier"
      kinds={<KindChoice kinds={KINDS} kind="single-carrier" onKind={props.onKind} />}
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={model.state?.settings.carrier}
      sentence={<CarrierSentence model={model} recording={recording} />}
      guided={(again) => (
        <GuidedMenu
          model={model}
          recording={recording}
          onWhatIsIt={what.ask}
          onLastFinding={again}
        />
      )}
      what={what}
    />
  );
}
