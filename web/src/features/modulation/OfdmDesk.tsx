import type { Job, OfdmSettings, Tiles } from "../../api/client";
import type { ReadyTiles } from "../../desk/tiles";
import { useDeskParts } from "../../desk/useDeskParts";
import { FIRST_CARRIER } from "../waveforms/parts";
import { KindChoice } from "./KindChoice";
import { KINDS, type Kind } from "./kinds";
import { OfdmSentence } from "./OfdmSentence";
import { RecordDesk } from "./RecordDesk";
import { useOfdmCommands } from "./useOfdmCommands";
import { useRecordSources } from "./useRecordSources";
import { useRecords } from "./useRecords";

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "points", view: "points" },
    { what: "overTone", view: "curve" },
    { what: "table:signal", view: "table" },
    { what: "errors", view: "matrix" },
    { what: "flatness", view: "curve" },
    { what: "table:packets", view: "table" },
  ],
};

/** What is looked at together. */
const MORE_TILES: ReadyTiles[] = [
  {
    name: "What it says",
    tiles: {
      count: 4,
      tiles: [
        { what: "table:signal", view: "table" },
        { what: "table:packets", view: "table" },
        { what: "table:payload", view: "table" },
        { what: "table:fields", view: "table" },
      ],
    },
  },
  {
    name: "How good",
    tiles: {
      count: 6,
      tiles: [
        { what: "points", view: "points" },
        { what: "overTone", view: "curve" },
        { what: "overSymbol", view: "curve" },
        { what: "errors", view: "matrix" },
        { what: "flatness", view: "curve" },
        { what: "phase", view: "curve" },
      ],
    },
  },
  {
    name: "On the air",
    tiles: {
      count: 4,
      tiles: [
        { what: "spectrum", view: "all" },
        { what: "table:mask", view: "table" },
        { what: "ccdf", view: "all" },
        { what: "response", view: "curve" },
      ],
    },
  },
  {
    name: "Why",
    tiles: {
      count: 4,
      tiles: [
        { what: "table:causes", view: "table" },
        { what: "points", view: "points" },
        { what: "overTone", view: "curve" },
        { what: "errors", view: "matrix" },
      ],
    },
  },
];

/** Packets of many tones at a time. */
export function OfdmDesk(props: { job: Job | undefined; onKind: (kind: Kind) => void }) {
  const { job } = props;
  const hookUp = useRecordSources(job);
  const model = useRecords<OfdmSettings>(job, hookUp.source, "ofdm");
  const parts = useDeskParts(job, model, "modulation-ofdm", FIRST_TILES, MORE_TILES);
  useOfdmCommands(model, {
    toggle: parts.toggle,
    open: () => parts.setOpening(true),
    data: () => props.onKind("single-carrier"),
    analog: () => props.onKind("analog"),
  });
  const recording = hookUp.source?.startsWith("r") ?? false;
  return (
    <RecordDesk
      job={job}
      title="Modulation"
      kind="ofdm"
      kinds={<KindChoice kinds={KINDS} kind="ofdm" onKind={props.onKind} />}
      model={model}
      hookUp={hookUp}
      parts={parts}
      carrier={FIRST_CARRIER}
      sentence={<OfdmSentence model={model} recording={recording} />}
    />
  );
}
