import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import {
  api,
  type Job,
  type LiveCut,
  type Outcome,
  Problem,
  type Recording,
  type RecordState,
  type RecordView,
} from "../../api/client";
import type { Arrays, RawFrame } from "../../api/frames";
import { useCalmFrame } from "../../api/live";
import { formatEngineering } from "../../components/units";
import { usePlan } from "../../desk/usePlan";
import { useSession } from "../../desk/useSession";

/** One record and what was measured of it, as tiles and words show it. */
export interface RecordFrame<S extends object> {
  outcome: Outcome;
  arrays: Arrays;
  view: RecordView;
  settings: S;
}

/** Settings that say how high a level is expected. */
interface Levelled {
  referenceLevelDbm: number;
}

/** A level that is set so near is not set again. */
const NEAR_DB = 1;
const MOST_FITS = 8;

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

  // Fitting the level takes a look or two: what was cut off tells too little of how high it is.
  const [fitting, setFitting] = useState(0);
  const { change, wished } = session;
  useEffect(() => {
    const wanted = frame?.view.facts.fittingReferenceDbm ?? null;
    const set = (frame?.settings as Levelled | undefined)?.referenceLevelDbm;
    if (fitting === 0 || wanted === null || set === undefined) {
      return;
    }
    if ((wished() as Levelled | null)?.referenceLevelDbm !== set) {
      return; // a look from before
    }
    if (Math.abs(wanted - set) <= NEAR_DB) {
      setFitting(0);
      return;
    }
    setFitting(fitting - 1);
    change({ referenceLevelDbm: wanted } as unknown as Partial<S>);
  }, [fitting, frame, change, wished]);

  /** Sets the reference level to what is there. */
  const fitLevel = () => {
    const known = frame?.view.facts.fittingReferenceDbm ?? null;
    if (known === null) {
      return "There is no level to fit to yet. Start first.";
    }
    setFitting(MOST_FITS);
    return "";
  };
  const queries = useQueryClient();
  /** Keeps a stretch of what is looked at as a recording; returns what is wrong with it. */
  const cut = async (wanted: LiveCut | string): Promise<string> => {
    if (typeof wanted === "string") {
      return wanted;
    }
    try {
      const kept = await api.post<Recording>(`${session.url}/recording`, wanted);
      session.says(`Recording "${kept.name}" of ${formatEngineering(kept.seconds, "s")}.`);
      await queries.invalidateQueries({ queryKey: ["recordings"] });
      return "";
    } catch (e) {
      return e instanceof Problem ? e.message : "It could not be kept.";
    }
  };
  return { ...session, frame, plan, fitLevel, cut };
}

const recordFrame = <S extends object>({ header, arrays }: RawFrame): RecordFrame<S> => ({
  outcome: header.outcome,
  arrays,
  view: header.view as RecordView,
  settings: header.settings as S,
});

export type RecordsModel<S extends object> = ReturnType<typeof useRecords<S>>;
