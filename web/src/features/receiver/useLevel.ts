import type { Instrument, Job, LevelPlan } from "../../api/client";
import { useControls } from "../../desk/useControls";

/** The level at the receiver, which the generator is set for. */
export function useLevel(
  generator: Instrument | undefined,
  job: Job | undefined,
  plan: LevelPlan | undefined,
) {
  const controls = useControls(generator ?? { id: 0 }, job);
  const own = generator?.controls.find((c) => c.id === "level");
  const first = plan?.planes[0]?.levelDbm;
  const last = plan?.planes.at(-1)?.levelDbm;
  const gainDb = first === undefined || last === undefined ? null : last - first;
  const dbm = own && gainDb !== null ? Number(own.value) + gainDb : null;
  /** Sets it; answers with what stands in the way, "" if nothing. */
  const set = async (wantedDbm: number) => {
    if (gainDb === null || !generator) {
      return "No generator is known at the beginning of the path.";
    }
    await controls.turn({ level: String(Math.round((wantedDbm - gainDb) * 1000) / 1000) });
    return "";
  };
  return { ...controls, dbm, set };
}
