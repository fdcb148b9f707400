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

/** Everything that the Spectrum screen does with its source. */
export function useSpectrum(job: Job, source: string | null) {
  const queries = useQueryClient();
  const { frame, state, setState, connected, stats } = useLive(source);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [history, setHistory] = useState<Framing[]>([]);
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
  useEffect(() => {
    wish.current = state?.settings ?? null;
  }, [state]);

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
      const taken = await attempt(async () => {
        try {
          return await api.put<LiveState>(`/api/live/${source}/settings`, wanted);
        } catch (e) {
          wish.current = before;
          wrong = (e as Error).message;
          throw e;
        }
      });
      const moved = wanted.centreHz !== before.centreHz || wanted.spanHz !== before.spanHz;
      if (taken && remember && moved) {
        setHistory((h) => [...h.slice(-30), { centreHz: before.centreHz, spanHz: before.spanHz }]);
      }
      return wrong;
    },
    [attempt, source],
  );

  const back = useCallback(() => {
    const last = history[history.length - 1];
    if (last) {
      setHistory((h) => h.slice(0, -1));
      change(last, false);
    }
  }, [history, change]);

  const keep = useCallback(
    async (name = "") => {
      try {
        const run = await api.post<RunSummary>(`/api/live/${source}/keep`, { name });
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
    back,
    keep,
    setProblem,
    canGoBack: history.length > 0,
  };
}

export type SpectrumModel = ReturnType<typeof useSpectrum>;
