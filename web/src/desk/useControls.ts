import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Instrument, type Job, type Problem } from "../api/client";
import { lineOf } from "../api/line";

/** Switches controls of an instrument; what the level plan refuses can be done with a reason. */
export function useControls(instrument: Pick<Instrument, "id">, job: Job | undefined) {
  const queries = useQueryClient();
  const [note, setNote] = useState("");
  const [wrong, setWrong] = useState("");
  const [refused, setRefused] = useState<{
    why: string;
    again: (reason: string) => Promise<void>;
  } | null>(null);
  const url = `/api/instruments/${instrument.id}`;

  /** Does something with the instrument and looks at it again. */
  const act = async (work: () => Promise<string>) => {
    setNote("");
    setWrong("");
    try {
      // In the order of the keys: a level must be set before the output is switched on.
      setNote(await lineOf(url).after(work));
    } catch (e) {
      setWrong((e as Problem).message);
    }
    await queries.invalidateQueries({ queryKey: ["instruments"] });
    await queries.invalidateQueries({ queryKey: ["plan"] });
  };

  /** Does what raises power; the reason is asked for where the level plan says no. */
  const gated = (send: (overrideReason: string) => Promise<unknown>, reason = ""): Promise<void> =>
    act(async () => {
      try {
        await send(reason);
        setRefused(null);
        return "";
      } catch (e) {
        const problem = e as Problem;
        if (problem.field !== "levelPlan") {
          throw e;
        }
        setRefused({ why: problem.message, again: (why) => gated(send, why) });
        return "";
      }
    });
  const turn = (values: Record<string, string>) =>
    gated((overrideReason) =>
      api.put(`${url}/controls`, { values, jobId: job?.id ?? null, overrideReason }),
    );
  return { url, note, wrong, refused, leave: () => setRefused(null), act, gated, turn };
}
