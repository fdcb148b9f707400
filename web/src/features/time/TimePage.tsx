import type { Job } from "../../api/client";
import { useKind } from "../modulation/useKind";
import { AMPLITUDE } from "./amplitude";
import { AUDIO } from "./audio";
import { BURSTS } from "./bursts";
import { DENSITY } from "./density";
import { HOPS } from "./hops";
import { TIME_KIND_KEY, TIME_KINDS, type TimeMeasurement } from "./kinds";
import { NETS } from "./nets";
import { PLACES } from "./places";
import { SPECTROGRAM } from "./spectrogram";
import { TimeDesk } from "./TimeDesk";
import { TRIGGER } from "./trigger";

const ALL = [
  BURSTS,
  DENSITY,
  SPECTROGRAM,
  AMPLITUDE,
  HOPS,
  AUDIO,
  TRIGGER,
  NETS,
  PLACES,
] as unknown as TimeMeasurement<{
  centreHz: number;
  seconds: number;
  referenceLevelDbm: number;
}>[];

/** What comes and goes, by one of several measurements of the same records. */
export function TimePage({ job }: { job: Job | undefined }) {
  const [kind, change] = useKind(TIME_KIND_KEY, TIME_KINDS);
  const of = ALL.find((m) => m.kind === kind) ?? ALL[0];
  return (
    <TimeDesk
      key={of.kind}
      job={job}
      of={of}
      others={ALL.filter((m) => m !== of)}
      onKind={change}
    />
  );
}
