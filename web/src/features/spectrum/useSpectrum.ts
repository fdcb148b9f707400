import { useCallback, useEffect, useState } from "react";
import type { Job, SpectrumSettings, SpectrumState, ViewPlan } from "../../api/client";
import { useCalmFrame } from "../../api/live";
import { usePlan } from "../../desk/usePlan";
import { type Change, useSession } from "../../desk/useSession";
import { type Frame, spectrumFrame } from "./spectrumFrame";

interface Framing {
  centreHz: number;
  spanHz: number;
}

type SetFramings = (change: (framings: Framing[]) => Framing[]) => void;

const MOST_FRAMINGS = 30;

/** Everything that the Spectrum screen does with its source. */
export function useSpectrum(job: Job | undefined, source: string | null) {
  const session = useSession<SpectrumSettings, SpectrumState["facts"], Frame>(
    source,
    "spectrum",
    job,
    spectrumFrame,
  );
  const { store, state, change: changeSettings, wished, start } = session;
  const frame = useCalmFrame(store);
  const [history, setHistory] = useState<Framing[]>([]);
  const [ahead, setAhead] = useState<Framing[]>([]);
  const plan = usePlan(job);

  const change = useCallback(
    async (asked: Change<SpectrumSettings>, remember = true) => {
      const before = wished();
      const wrong = await changeSettings(asked);
      const after = wished();
      const moved =
        before && after && (after.centreHz !== before.centreHz || after.spanHz !== before.spanHz);
      if (!wrong && remember && moved) {
        setAhead([]);
        setHistory((h) => [
          ...h.slice(-MOST_FRAMINGS),
          { centreHz: before.centreHz, spanHz: before.spanHz },
        ]);
      }
      return wrong;
    },
    [changeSettings, wished],
  );

  /** Changes the view; what builds on the present one is a function of it, for it may be old. */
  const changeView = useCallback(
    (part: Change<ViewPlan>) =>
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
      const now = wished();
      if (next && now) {
        setFrom((h) => h.slice(0, -1));
        setTo((h) => [...h, { centreHz: now.centreHz, spanHz: now.spanHz }]);
        change(next, false);
      }
    },
    [change, wished],
  );
  const back = useCallback(() => turn(history, setHistory, setAhead), [turn, history]);
  const forward = useCallback(() => turn(ahead, setAhead, setHistory), [turn, ahead]);

  // A recording is computed as soon as it is looked at.
  useEffect(() => {
    if (source?.startsWith("r") && state?.source === source && state.phase === "IDLE") {
      start();
    }
  }, [source, state, start]);

  return { ...session, frame, plan, change, changeView, back, forward };
}

export type SpectrumModel = ReturnType<typeof useSpectrum>;
