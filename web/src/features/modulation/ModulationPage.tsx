import type { Job } from "../../api/client";
import { AnalogDesk } from "./AnalogDesk";
import { CarrierDesk } from "./CarrierDesk";
import { KIND_KEY, KINDS } from "./kinds";
import { OfdmDesk } from "./OfdmDesk";
import { useKind } from "./useKind";

/** Modulated carriers, of receivers and recordings: with data, following something analog, OFDM. */
export function ModulationPage({ job }: { job: Job | undefined }) {
  const [kind, change] = useKind(KIND_KEY, KINDS);
  if (kind === "ofdm") {
    return <OfdmDesk job={job} onKind={change} />;
  }
  return kind === "analog" ? (
    <AnalogDesk job={job} onKind={change} />
  ) : (
    <CarrierDesk job={job} onKind={change} />
  );
}
