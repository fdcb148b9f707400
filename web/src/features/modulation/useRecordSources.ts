import type { Job } from "../../api/client";
import { useInstruments } from "../../desk/useInstruments";
import { useSources } from "../../desk/useSources";

/** The sources of this area. */
export function useRecordSources(job: Job | undefined) {
  const { data: instruments = [] } = useInstruments();
  return { instruments, ...useSources(job, instruments, (i) => i.kind === "IQ_RECEIVER") };
}
