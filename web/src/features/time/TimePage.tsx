import type { Job } from "../../api/client";
import { useKind } from "../modulation/useKind";
import { BurstDesk } from "./BurstDesk";
import { DensityDesk } from "./DensityDesk";
import { TIME_KIND_KEY, TIME_KINDS } from "./kinds";

/** What comes and goes: bursts, and how often each frequency has which level. */
export function TimePage({ job }: { job: Job | undefined }) {
  const [kind, change] = useKind(TIME_KIND_KEY, TIME_KINDS);
  return kind === "density" ? (
    <DensityDesk job={job} onKind={change} />
  ) : (
    <BurstDesk job={job} onKind={change} />
  );
}
