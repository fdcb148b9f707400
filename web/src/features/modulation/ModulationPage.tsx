import type { Job } from "../../api/client";
import { AnalogDesk } from "./AnalogDesk";
import { CarrierDesk } from "./CarrierDesk";
import { KIND_KEY, KINDS } from "./kinds";
import { useKind } from "./useKind";

/** Modulated carriers, of receivers and recordings: with data, or following something analog. */
export function ModulationPage({ job }: { job: Job | undefined }) {
  const [kind, change] = useKind(KIND_KEY, KINDS);
  return kind === "analog" ? (
    <AnalogDesk job={job} onKind={change} />
  ) : (
    <CarrierDesk job={job} onKind={change} />
  );
}
