import { useEffect } from "react";
import type { Job, Outcome, RecordState, RecordView } from "../../api/client";
import type { Arrays, RawFrame } from "../../api/frames";
import { useCalmFrame } from "../../api/live";
import { usePlan } from "../../desk/usePlan";
import { useSession } from "../../desk/useSession";

/** One record and what was measured of it, as tiles and words show it. */
export interface RecordFrame<S extends object> {
  outcome: Outcome;
  arrays: Arrays;
  view: RecordView;
  settings: S;
}

/** Everything that a screen of single records does with its source. */
export function useRecords<S extends object>(
  job: Job | undefined,
  source: string | null,
  kind: string,
) {
  const session = useSession<S, RecordState<S>["facts"], RecordFrame<S>>(
    source,
    kind,
    job,
    recordFrame,
  );
  const { store, state, start } = session;
  const frame = useCalmFrame(store);
  const plan = usePlan(job);

  // A recording is computed as soon as it is looked at.
  useEffect(() => {
    if (source?.startsWith("r") && state?.source === source && state.phase === "IDLE") {
      start();
    }
  }, [source, state, start]);
  return { ...session, frame, plan };
}

const recordFrame = <S extends object>({ header, arrays }: RawFrame): RecordFrame<S> => ({
  outcome: header.outcome,
  arrays,
  view: header.view as RecordView,
  settings: header.settings as S,
});

export type RecordsModel<S extends object> = ReturnType<typeof useRecords<S>>;
