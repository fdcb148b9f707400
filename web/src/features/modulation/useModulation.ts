import { useEffect } from "react";
import type { CarrierSettings, CarrierState, CarrierView, Job, Outcome } from "../../api/client";
import type { Arrays, RawFrame } from "../../api/frames";
import { useCalmFrame } from "../../api/live";
import { usePlan } from "../../desk/usePlan";
import { useSession } from "../../desk/useSession";

/** One record of a carrier, as tiles and words show it. */
export interface CarrierFrame {
  outcome: Outcome;
  arrays: Arrays;
  view: CarrierView;
  settings: CarrierSettings;
}

const carrierFrame = ({ header, arrays }: RawFrame): CarrierFrame => ({
  outcome: header.outcome,
  arrays,
  view: header.view as CarrierView,
  settings: header.settings as CarrierSettings,
});

/** Everything that the Modulation screen does with its source. */
export function useModulation(job: Job | undefined, source: string | null) {
  const session = useSession<CarrierSettings, CarrierState["facts"], CarrierFrame>(
    source,
    "single-carrier",
    job,
    carrierFrame,
  );
  const { store, state, start, change, wished } = session;
  const frame = useCalmFrame(store);
  const plan = usePlan(job);

  /** Changes what the carrier is said to be. */
  const describe = (part: Partial<CarrierSettings["carrier"]>) => {
    const now = wished();
    return now
      ? change({ carrier: { ...now.carrier, ...part } })
      : Promise.resolve("There is no source yet.");
  };

  // A recording is computed as soon as it is looked at.
  useEffect(() => {
    if (source?.startsWith("r") && state?.source === source && state.phase === "IDLE") {
      start();
    }
  }, [source, state, start]);

  return { ...session, frame, plan, describe };
}

export type ModulationModel = ReturnType<typeof useModulation>;
