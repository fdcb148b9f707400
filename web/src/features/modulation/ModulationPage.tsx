import { useState } from "react";
import type { Job } from "../../api/client";
import { AnalogDesk } from "./AnalogDesk";
import { CarrierDesk } from "./CarrierDesk";
import { KIND_KEY, type Kind } from "./kinds";

/** Modulated carriers, of receivers and recordings: with data, or following something analog. */
export function ModulationPage({ job }: { job: Job | undefined }) {
  const [kind, setKind] = useState<Kind>(() =>
    sessionStorage.getItem(KIND_KEY) === "analog" ? "analog" : "single-carrier",
  );
  const change = (wanted: Kind) => {
    sessionStorage.setItem(KIND_KEY, wanted);
    setKind(wanted);
  };
  return kind === "analog" ? (
    <AnalogDesk job={job} onKind={change} />
  ) : (
    <CarrierDesk job={job} onKind={change} />
  );
}
