import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { decodeSweep, type SweepFrame } from "../../api/analyzer";
import {
  type AnalyzerState,
  api,
  type Job,
  type JobNetwork,
  type NetworkSummary,
  type NetworkViewRequest,
  Problem,
  type RunSummary,
  type SweepSettings,
  thisWindow,
  type VerifyReply,
} from "../../api/client";
import { useSource } from "../../api/live";

/** An end that is moved past the other takes it along: one end is typed before the other. */
function ordered(wanted: SweepSettings, before: SweepSettings, byStart: boolean): SweepSettings {
  if (wanted.type === "SEGMENTS" || wanted.startHz < wanted.stopHz) {
    return wanted;
  }
  const span = before.stopHz - before.startHz;
  return byStart
    ? { ...wanted, stopHz: Math.min(wanted.startHz + span, 2 * wanted.startHz) }
    : { ...wanted, startHz: Math.max(wanted.stopHz - span, wanted.stopHz / 2) };
}

/** Everything that the Network screen does with a live analyzer; id null for files alone. */
export function useAnalyzer(id: number | null, job: Job | undefined, view: NetworkViewRequest) {
  const queries = useQueryClient();
  const { frame, state, setState, connected, stats } = useSource<SweepFrame, AnalyzerState>(
    id === null ? null : `n${id}`,
    decodeSweep,
  );
  const [problem, setProblem] = useState<Problem | null>(null);
  const [note, setNote] = useState("");
  const [atPart, setAtPart] = useState(true);
  const [dcChecked, setDcChecked] = useState(false);
  const [verdict, setVerdict] = useState<VerifyReply | null>(null);
  const url = `/api/analyzers/${id}`;
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const wish = useRef<SweepSettings | null>(null);
  const wishes = useRef(0);
  useEffect(() => {
    if (wishes.current === 0) {
      wish.current = state?.sweep ?? null;
    }
  }, [state]);

  // One request after the other: the server must see them in the order of the keys.
  const attempt = useCallback(<T>(work: () => Promise<T>): Promise<T | null> => {
    const run = async () => {
      try {
        const done = await work();
        setProblem(null);
        return done;
      } catch (e) {
        setProblem(e instanceof Problem ? e : new Problem(String(e), "", 0));
        return null;
      }
    };
    const done = queue.current.then(run);
    queue.current = done;
    return done;
  }, []);
  const act = useCallback(
    (work: () => Promise<AnalyzerState>) =>
      attempt(async () => {
        setState(await work());
        return true;
      }),
    [attempt, setState],
  );

  const change = async (part: Partial<SweepSettings>) => {
    const before = wish.current;
    if (!before) {
      return;
    }
    const wanted = ordered({ ...before, ...part }, before, part.startHz !== undefined);
    wish.current = wanted;
    wishes.current++;
    await act(async () => {
      try {
        return await api.put<AnalyzerState>(`${url}/sweep`, wanted);
      } catch (e) {
        wish.current = before;
        throw e;
      } finally {
        wishes.current--;
      }
    });
  };

  // The view goes to the server as it is wished; it draws the live sweep itself.
  const request = JSON.stringify({ ...view, networks: [] });
  const jobId = job?.id;
  // Who takes over brings its own view.
  const other = state !== null && state.holder !== "" && state.holder !== thisWindow.id;
  useEffect(() => {
    if (id !== null && connected && !other) {
      act(() =>
        api.put<AnalyzerState>(`/api/analyzers/${id}/view`, {
          view: JSON.parse(request),
          atPart,
          jobId: jobId ?? null,
        }),
      );
    }
  }, [id, connected, request, atPart, jobId, other, act]);

  const start = (single = false, overrideReason = "", dc = dcChecked) =>
    act(() =>
      api.post<AnalyzerState>(`${url}/start`, {
        jobId: job?.id ?? null,
        overrideReason,
        dcChecked: dc,
        single,
      }),
    );
  const says = (text: string) => {
    setNote(text);
    setTimeout(() => setNote(""), 5000);
  };

  return {
    id,
    frame,
    state,
    connected: connected || id === null,
    stats,
    problem,
    setProblem,
    note,
    atPart,
    setAtPart,
    dcChecked,
    setDcChecked,
    verdict,
    change,
    start,
    hold: () => act(() => api.post<AnalyzerState>(`${url}/hold`)),
    takeOver: () => act(() => api.post<AnalyzerState>(`${url}/take-over`)),
    calibrate: (
      method: string,
      kit: string,
      files: Record<string, number>,
      throughSeconds: number,
    ) =>
      act(() =>
        api.post<AnalyzerState>(`${url}/calibration`, { method, kit, files, throughSeconds }),
      ),
    measure: (step: string, partOff: boolean) =>
      act(() => api.post<AnalyzerState>(`${url}/calibration/steps/${step}`, { partOff })),
    /** Stores a kit under its file's name; null if it is refused. */
    addKit: (file: File) =>
      attempt(async () => {
        const id = file.name.replace(/\.ya?ml$/i, "").replace(/[^A-Za-z0-9_-]+/g, "-");
        await api.post(`/api/kits/${id}`, await file.text());
        await queries.invalidateQueries({ queryKey: ["kits"] });
        return id;
      }),
    finish: (name: string) =>
      attempt(async () => {
        const made = await api.post<{ name: string }>(`${url}/calibration/finish`, { name });
        await queries.invalidateQueries({ queryKey: ["calibrations"] });
        says(`Kept and used: ${made.name}.`);
        return true;
      }),
    drop: () => attempt(() => api.remove(`${url}/calibration`)),
    use: (calibrationId: number | null) =>
      act(() => api.put<AnalyzerState>(`${url}/calibration/use`, { calibrationId })),
    verify: (what: string, port: number, networkId: number | null) =>
      attempt(async () => {
        const said = await api.post<VerifyReply>(`${url}/verify`, { what, port, networkId });
        setVerdict(said);
        await queries.invalidateQueries({ queryKey: ["calibrations"] });
        return true;
      }),
    fixture: (empty: boolean) =>
      attempt(async () => {
        await api.post<JobNetwork>(`${url}/fixture`, { empty });
        await queries.invalidateQueries({ queryKey: ["job-network"] });
        await queries.invalidateQueries({ queryKey: ["networks"] });
        says(empty ? "The empty fixture is kept." : "The shorted fixture is kept.");
        return true;
      }),
    remember: (name = "") =>
      attempt(async () => {
        const made = await api.post<NetworkSummary>(`${url}/remember`, { name });
        await queries.invalidateQueries({ queryKey: ["networks"] });
        says(`Remembered as "${made.name}".`);
        return made.id;
      }),
    keep: (name = "") =>
      attempt(async () => {
        const run = await api.post<RunSummary>(`${url}/keep`, { name });
        await queries.invalidateQueries({ queryKey: ["runs"] });
        await queries.invalidateQueries({ queryKey: ["networks"] });
        says(`Kept as "${run.name}".`);
        return true;
      }),
  };
}

export type AnalyzerModel = ReturnType<typeof useAnalyzer>;
