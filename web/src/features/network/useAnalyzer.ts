import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import {
  api,
  type Job,
  type JobNetwork,
  type NetworkSettings,
  type NetworkState,
  type NetworkSummary,
  type NetworkViewRequest,
  type SweepSettings,
  thisWindow,
  type VerifyReply,
} from "../../api/client";
import { useCalmFrame } from "../../api/live";
import { useSession } from "../../desk/useSession";
import { type SweepFrame, sweepFrame } from "./sweepFrame";

/** The field of the question whether dc lies at the ports. */
const DC_CHECK = "dcCheck";

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
  const session = useSession<NetworkSettings, NetworkState["facts"], SweepFrame>(
    id === null ? null : `i${id}`,
    "network",
    job,
    sweepFrame,
  );
  const { state, connected, act, inOrder, says, url } = session;
  const changeSettings = session.change;
  const frame = useCalmFrame(session.store);
  const [dcChecked, setDcChecked] = useState(false);
  const [verdict, setVerdict] = useState<VerifyReply | null>(null);

  // Who takes over brings its own view and its own job.
  const other = state !== null && state.holder !== "" && state.holder !== thisWindow.id;
  const mine = id !== null && connected && state !== null && !other;
  const request = JSON.stringify({ ...view, networks: [] });
  useEffect(() => {
    if (mine) {
      changeSettings({ view: JSON.parse(request) as NetworkViewRequest });
    }
  }, [mine, request, changeSettings]);
  const jobId = job?.id ?? null;
  // A path that was edited makes another level plan.
  const revision = job?.path.revision ?? 0;
  const told = useMemo(() => ({ jobId, revision }), [jobId, revision]);
  useEffect(() => {
    if (mine) {
      act(() => api.put(`${url}/job`, { jobId: told.jobId }));
    }
  }, [mine, told, url, act]);

  const change = useCallback(
    (part: Partial<SweepSettings>) =>
      changeSettings((now) => ({
        sweep: ordered({ ...now.sweep, ...part }, now.sweep, part.startHz !== undefined),
      })),
    [changeSettings],
  );
  const startSession = session.start;
  const start = (once = false, overrideReason = "") =>
    startSession({ once, overrideReason, answers: dcChecked ? [DC_CHECK] : [] });

  return {
    ...session,
    id,
    frame,
    connected: connected || id === null,
    facts: state?.facts,
    sweep: state?.settings.sweep,
    atPart: state?.settings.atPart ?? true,
    /** Takes settings that were kept, but for the view: that is the screen's. */
    take: (s: NetworkSettings) => changeSettings({ sweep: s.sweep, atPart: s.atPart }),
    setAtPart: (atPart: boolean) => changeSettings({ atPart }),
    dcChecked,
    setDcChecked,
    verdict,
    change,
    start,
    calibrate: (
      method: string,
      kit: string,
      files: Record<string, number>,
      throughSeconds: number,
    ) => act(() => api.post(`${url}/calibration`, { method, kit, files, throughSeconds })),
    measure: (step: string, partOff: boolean) =>
      act(() => api.post(`${url}/calibration/steps/${step}`, { partOff })),
    /** Stores a kit under its file's name; null if it is refused. */
    addKit: (file: File) =>
      inOrder(async () => {
        const id = file.name.replace(/\.ya?ml$/i, "").replace(/[^A-Za-z0-9_-]+/g, "-");
        await api.post(`/api/kits/${id}`, await file.text());
        await queries.invalidateQueries({ queryKey: ["kits"] });
        return id;
      }),
    finish: (name: string) =>
      inOrder(async () => {
        const made = await api.post<{ name: string }>(`${url}/calibration/finish`, { name });
        await queries.invalidateQueries({ queryKey: ["calibrations"] });
        says(`Kept and used: ${made.name}.`);
        return true;
      }),
    drop: () => inOrder(() => api.remove(`${url}/calibration`)),
    use: (calibrationId: number | null) =>
      act(() => api.put(`${url}/calibration/use`, { calibrationId })),
    verify: (what: string, port: number, networkId: number | null) =>
      inOrder(async () => {
        const said = await api.post<VerifyReply>(`${url}/verify`, { what, port, networkId });
        setVerdict(said);
        await queries.invalidateQueries({ queryKey: ["calibrations"] });
        return true;
      }),
    fixture: (empty: boolean) =>
      inOrder(async () => {
        await api.post<JobNetwork>(`${url}/fixture`, { empty });
        await queries.invalidateQueries({ queryKey: ["job-network"] });
        await queries.invalidateQueries({ queryKey: ["networks"] });
        says(empty ? "The empty fixture is kept." : "The shorted fixture is kept.");
        return true;
      }),
    remember: (name = "") =>
      inOrder(async () => {
        const made = await api.post<NetworkSummary>(`${url}/remember`, { name });
        await queries.invalidateQueries({ queryKey: ["networks"] });
        says(`Remembered as "${made.name}".`);
        return made.id;
      }),
  };
}

export type AnalyzerModel = ReturnType<typeof useAnalyzer>;
