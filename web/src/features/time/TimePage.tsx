import type { Job } from "../../api/client";
import { later } from "../../components/later";
import { KindChoice } from "../modulation/KindChoice";
import { useKind } from "../modulation/useKind";
import { AMPLITUDE } from "./amplitude";
import { AUDIO } from "./audio";
import { BURSTS } from "./bursts";
import { CHANNELS } from "./channels";
import { DENSITY } from "./density";
import { HOPS } from "./hops";
import { TIME_KIND_KEY, TIME_KINDS, type TimeMeasurement } from "./kinds";
import { NETS } from "./nets";
import { PLACES } from "./places";
import { SPECTROGRAM } from "./spectrogram";
import { TimeDesk } from "./TimeDesk";
import { TRIGGER } from "./trigger";

const WatchDesk = later(async () => (await import("../watch/WatchDesk")).WatchDesk);

const ALL = [
  BURSTS,
  DENSITY,
  SPECTROGRAM,
  AMPLITUDE,
  HOPS,
  CHANNELS,
  AUDIO,
  TRIGGER,
  NETS,
  PLACES,
] as unknown as TimeMeasurement<{
  centreHz: number;
  seconds: number;
  referenceLevelDbm: number;
}>[];

const WATCH = {
  kind: "watch",
  command: { name: "watch", hint: "follow numbers for hours and days" },
} as const;

/** What comes and goes, by one of several measurements of the same records. */
export function TimePage({ job }: { job: Job | undefined }) {
  const [kind, change] = useKind(TIME_KIND_KEY, TIME_KINDS);
  if (kind === "watch") {
    return (
      <WatchDesk
        job={job}
        kinds={<KindChoice kinds={TIME_KINDS} kind={kind} onKind={change} />}
        others={ALL.map((m) => ({ ...m.command, come: () => change(m.kind) }))}
      />
    );
  }
  const of = ALL.find((m) => m.kind === kind) ?? ALL[0];
  return (
    <TimeDesk
      key={of.kind}
      job={job}
      of={of}
      others={[...ALL.filter((m) => m !== of), WATCH]}
      onKind={change}
    />
  );
}
