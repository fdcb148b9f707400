import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import {
  api,
  type Job,
  type LevelPlan,
  type LiveState,
  Problem,
  type RunSummary,
  type SpectrumSettings,
  type SurveyRange,
  type ViewPlan,
} from "../../api/client";
import { useLive } from "../../api/live";

/** New values, or how they follow from the present ones. */
export type Change =
  | Partial<SpectrumSettings>
  | ((now: SpectrumSettings) => Partial<SpectrumSettings>);

interface Framing {
  centreHz: number;
  spanHz: number;
}

type SetFramings = (change: (framings: Framing[]) => Framing[]) => void;

/** What guided work may be told; the server knows the kinds. */
export interface GuidedWork {
  kind: string;
  stepDb: number;
  highest: number;
  limitDbm: number | null;
  limitDb: number | null;
  receiverAlone: boolean;
  excessNoiseDb: number | null;
  coldKelvin: number | null;
  fromDbm: number;
  toDbm: number;
  steps: number;
  toHz: number;
  ranges: SurveyRange[];
  excludeFromHz: number;
  excludeToHz: number;
}

/** Everything that the Spectrum screen does with its source. */
export function useSpectrum(job: Job, source: string | null) {
  const queries = useQueryClient();
  const { frame, state, setState, connected, stats } = useLive(source);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [history, setHistory] = useState<Framing[]>([]);
  const [ahead, setAhead] = useState<Framing[]>([]);
  const [keptNote, setKeptNote] = useState("");
  const { data: newestPlan } = useQuery({
    queryKey: ["plan", job.id, job.path.revision],
    queryFn: () => api.get<LevelPlan>(`/api/jobs/${job.id}/level-plan`),
    refetchInterval: 1500,
  });

  // One request after the other: the server must see them in the order of the keys.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  // Path and plan are fetched apart: a plan of another path is no plan.
  const plan = newestPlan?.planes.length === job.path.elements.length - 1 ? newestPlan : undefined;

  const attempt = useCallback(
    (work: () => Promise<LiveState | undefined>) => {
      const run = async () => {
        try {
          const next = await work();
          if (next) {
            setState(next);
          }
          setProblem(null);
          return true;
        } catch (e) {
          setProblem(e instanceof Problem ? e : new Problem(String(e), "", 0));
          return false;
        }
      };
      const done = queue.current.then(run);
      queue.current = done;
      return done;
    },
    [setState],
  );

  const start = useCallback(
    (overrideReason = "") =>
      attempt(() =>
        api.post<LiveState>(`/api/live/${source}/start`, { jobId: job.id, overrideReason }),
      ),
    [attempt, source, job.id],
  );

  const hold = useCallback(
    () => attempt(() => api.post<LiveState>(`/api/live/${source}/hold`)),
    [attempt, source],
  );

  const takeOver = useCallback(
    () => attempt(() => api.post<LiveState>(`/api/live/${source}/take-over`)),
    [attempt, source],
  );

  // Steps that follow each other quickly (wheel, key repeat) build on the newest wish.
  const wish = useRef<SpectrumSettings | null>(null);
  // While a wish is on its way, a state that does not know of it yet must not undo it.
  const wishes = useRef(0);
  const newest = useRef<LiveState | null>(null);
  newest.current = state;
  useEffect(() => {
    if (wishes.current === 0 || state?.source !== source) {
      wish.current = state?.settings ?? null;
    }
  }, [state, source]);

  const change = useCallback(
    async (asked: Change, remember = true) => {
      const before = wish.current;
      if (!before) {
        return "There is no source yet.";
      }
      const part = typeof asked === "function" ? asked(before) : asked;
      const wanted = { ...before, ...part };
      wish.current = wanted;
      let wrong = "";
      wishes.current++;
      const taken = await attempt(async () => {
        try {
          return await api.put<LiveState>(`/api/live/${source}/settings`, wanted);
        } catch (e) {
          wish.current = newest.current?.settings ?? before;
          wrong = (e as Error).message;
          throw e;
        } finally {
          wishes.current--;
        }
      });
      const moved = wanted.centreHz !== before.centreHz || wanted.spanHz !== before.spanHz;
      if (taken && remember && moved) {
        setAhead([]);
        setHistory((h) => [...h.slice(-30), { centreHz: before.centreHz, spanHz: before.spanHz }]);
      }
      return wrong;
    },
    [attempt, source],
  );

  /** Changes the view; what builds on the present one is a function of it, for it may be old. */
  const changeView = useCallback(
    (part: Partial<ViewPlan> | ((now: ViewPlan) => Partial<ViewPlan>)) =>
      change(
        (now) => ({
          view: { ...now.view, ...(typeof part === "function" ? part(now.view) : part) },
        }),
        false,
      ),
    [change],
  );

  /** Goes one framing back or forward in the history of zooms. */
  const turn = useCallback(
    (from: Framing[], setFrom: SetFramings, setTo: SetFramings) => {
      const next = from[from.length - 1];
      const now = wish.current;
      if (next && now) {
        setFrom((h) => h.slice(0, -1));
        setTo((h) => [...h, { centreHz: now.centreHz, spanHz: now.spanHz }]);
        change(next, false);
      }
    },
    [change],
  );
  const back = useCallback(() => turn(history, setHistory, setAhead), [turn, history]);
  const forward = useCallback(() => turn(ahead, setAhead, setHistory), [turn, ahead]);

  const guide = useCallback(
    (work: Partial<GuidedWork> & { kind: string }, overrideReason = "") =>
      attempt(() =>
        api.post<LiveState>(`/api/live/${source}/guided`, { jobId: job.id, overrideReason, work }),
      ),
    [attempt, source, job.id],
  );

  const stopGuided = useCallback(
    () =>
      attempt(async () => {
        await api.remove(`/api/live/${source}/guided`);
        return undefined;
      }),
    [attempt, source],
  );

  const keep = useCallback(
    async (name = "", what = "keep") => {
      try {
        const run = await api.post<RunSummary>(`/api/live/${source}/${what}`, { name });
        setKeptNote(`Kept as "${run.name}".`);
        setTimeout(() => setKeptNote(""), 4000);
        await queries.invalidateQueries({ queryKey: ["runs"] });
        return "";
      } catch (e) {
        setProblem(e as Problem);
        return (e as Error).message;
      }
    },
    [source, queries],
  );

  // A recording is computed as soon as it is looked at.
  useEffect(() => {
    if (source?.startsWith("r") && state?.source === source && state.phase === "IDLE") {
      start();
    }
  }, [source, state, start]);

  return {
    frame,
    state,
    plan,
    connected,
    stats,
    problem,
    keptNote,
    start,
    hold,
    takeOver,
    inOrder: attempt,
    change,
    changeView,
    back,
    forward,
    guide,
    stopGuided,
    keep,
    setProblem,
    canGoBack: history.length > 0,
  };
}

export type SpectrumModel = ReturnType<typeof useSpectrum>;
