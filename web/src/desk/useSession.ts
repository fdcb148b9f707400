import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Job, Problem, type RunSummary, type SessionState } from "../api/client";
import type { RawFrame } from "../api/frames";
import { Line } from "../api/line";
import { useConnected, useLiveState, useLiveStore } from "../api/live";

/** New values, or how they follow from the present ones. */
export type Change<S> = Partial<S> | ((now: S) => Partial<S>);

export interface StartOptions {
  overrideReason?: string;
  /** Fields of the questions that were answered. */
  answers?: string[];
  /** Hold after the first settled look. */
  once?: boolean;
}

const NOTE_MILLIS = 5000;

/** Everything that a screen does with one measurement of one source, whatever it measures. */
export function useSession<S extends object, F, Frame>(
  source: string | null,
  measurement: string,
  job: Job | undefined,
  decode: (raw: RawFrame) => Frame,
) {
  const queries = useQueryClient();
  const store = useLiveStore<Frame, SessionState<S, F>>(source, measurement, decode);
  const state = useLiveState(store);
  const connected = useConnected(store);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [note, setNote] = useState("");
  const url = `/api/live/${source}/${measurement}`;
  const jobId = job?.id ?? null;

  const noteTimer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const says = useCallback((text: string) => {
    setNote(text);
    clearTimeout(noteTimer.current);
    noteTimer.current = setTimeout(() => setNote(""), NOTE_MILLIS);
  }, []);
  useEffect(() => () => clearTimeout(noteTimer.current), []);

  // One request after the other: the server must see them in the order of the keys.
  const [line] = useState(() => new Line());
  const inOrder = useCallback(
    async <T>(work: () => Promise<T>): Promise<T | null> => {
      try {
        const done = await line.after(work);
        setProblem(null);
        return done;
      } catch (e) {
        setProblem(e instanceof Problem ? e : new Problem(String(e), "", 0));
        return null;
      }
    },
    [line],
  );

  /** A request that answers with the new state; true if it was done. */
  const act = useCallback(
    (work: () => Promise<SessionState<S, F>>) =>
      inOrder(async () => {
        store?.takeState(await work());
        return true;
      }),
    [inOrder, store],
  );

  const start = useCallback(
    (options: StartOptions = {}) => act(() => api.post(`${url}/start`, { jobId, ...options })),
    [act, url, jobId],
  );
  const hold = useCallback(() => act(() => api.post(`${url}/hold`)), [act, url]);
  const takeOver = useCallback(() => act(() => api.post(`${url}/take-over`)), [act, url]);

  // Steps that follow each other quickly (wheel, key repeat) build on the newest wish. While a wish
  // is on its way, a state that does not know of it yet must not undo it.
  const wish = useRef<S | null>(null);
  const wishes = useRef(0);
  useEffect(() => {
    if (wishes.current === 0 || state?.source !== source) {
      // The newest that is known: this may run for a state that others have followed.
      wish.current = (store?.state.get() ?? state)?.settings ?? null;
    }
  }, [state, source, store]);

  /** Changes settings; answers with what is wrong, "" if nothing. */
  const change = useCallback(
    async (asked: Change<S>) => {
      if (!source) {
        return "There is no source yet.";
      }
      if (!wish.current) {
        // A desk that has just opened may be spoken to before its first state has come.
        await inOrder(async () => {
          const first = await api.get<SessionState<S, F>>(url);
          store?.takeState(first);
          wish.current ??= first.settings;
        });
      }
      const before = wish.current;
      if (!before) {
        return "The source does not answer. Try again when it does.";
      }
      const part = typeof asked === "function" ? asked(before) : asked;
      const wanted = { ...before, ...part };
      wish.current = wanted;
      wishes.current++;
      let wrong = "";
      await act(async () => {
        try {
          return await api.put<SessionState<S, F>>(`${url}/settings`, wanted);
        } catch (e) {
          wish.current = store?.state.get()?.settings ?? before;
          wrong = (e as Error).message;
          throw e;
        } finally {
          wishes.current--;
        }
      });
      return wrong;
    },
    [act, inOrder, url, source, store],
  );
  const wished = useCallback(() => wish.current, []);

  const guide = useCallback(
    (work: { kind: string; [field: string]: unknown }, overrideReason = "") =>
      act(() => api.post(`${url}/guided`, { jobId, overrideReason, work })),
    [act, url, jobId],
  );
  // Guided work keeps runs of its own on the way.
  const working = state?.guided != null;
  useEffect(() => {
    if (!working) {
      queries.invalidateQueries({ queryKey: ["runs"] });
    }
  }, [working, queries]);
  const stopGuided = useCallback(() => inOrder(() => api.remove(`${url}/guided`)), [inOrder, url]);

  const keep = useCallback(
    async (name = "", what = "keep") => {
      try {
        const run = await api.post<RunSummary>(`${url}/${what}`, { name, jobId });
        says(`Kept as "${run.name}".`);
        await queries.invalidateQueries({ queryKey: ["runs"] });
        await queries.invalidateQueries({ queryKey: ["networks"] });
        return "";
      } catch (e) {
        setProblem(e as Problem);
        return (e as Error).message;
      }
    },
    [url, jobId, says, queries],
  );

  return {
    source,
    url,
    store,
    state,
    connected,
    problem,
    setProblem,
    note,
    says,
    inOrder,
    act,
    start,
    hold,
    takeOver,
    change,
    wished,
    guide,
    stopGuided,
    keep,
  };
}
