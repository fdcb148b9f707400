import type { CarrierSettings, Job } from "../../api/client";
import { useRecords } from "./useRecords";

/** Everything that the desk of carriers with data does with its source. */
export function useModulation(job: Job | undefined, source: string | null) {
  const records = useRecords<CarrierSettings>(job, source, "single-carrier");
  const { change, wished } = records;

  /** Changes what the carrier is said to be. */
  const describe = (part: Partial<CarrierSettings["carrier"]>) => {
    const now = wished();
    return now
      ? change({ carrier: { ...now.carrier, ...part } })
      : Promise.resolve("There is no source yet.");
  };
  return { ...records, describe };
}

export type ModulationModel = ReturnType<typeof useModulation>;
