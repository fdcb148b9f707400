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

/** Views of what is not a curve. */
const VIEWS: Record<string, string> = { points: "points", errors: "matrix" };

/** Tiles that show all of these. */
const tilesOf = (count: number, ...shown: string[]): Tiles => ({
  count,
  tiles: shown.map((what) => ({
    what,
    view: what.startsWith("table:") ? "table" : (VIEWS[what] ?? "curve"),
  })),
});

/** Good first tiles; the last two are for six. */
const FIRST_TILES = tilesOf(
  4,
  "points",
  "overTone",
  "table:signal",
  "errors",
  "flatness",
  "table:packets",
);

/** What is looked at together. */
const MORE_TILES: ReadyTiles[] = [
  {
    name: "What it says",
    tiles: tilesOf(4, "table:signal", "table:packets", "table:payload", "table:fields"),
  },
  {
    name: "How good",
    tiles: tilesOf(6, "points", "overTone", "overSymbol", "errors", "flatness", "phase"),
  },
  { name: "On the air", tiles: tilesOf(4, "spectrum", "table:mask", "ccdf", "response") },
  { name: "Why", tiles: tilesOf(4, "table:causes", "points", "overTone", "errors") },
  { name: "Users", tiles: tilesOf(4, "table:users", "units", "points", "overTone") },
  { name: "Unused tones", tiles: tilesOf(4, "unused", "table:unused", "overTone", "points") },
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
