import { useQuery } from "@tanstack/react-query";
import { api, type Job, type LevelPlan } from "../api/client";

/** What the level plan says of a job's path now; undefined while that is not known. */
export function usePlan(job: Job | undefined): LevelPlan | undefined {
  const { data } = useQuery({
    queryKey: ["plan", job?.id, job?.path.revision],
    queryFn: () => api.get<LevelPlan>(`/api/jobs/${job?.id}/level-plan`),
    enabled: job !== undefined,
    refetchInterval: 1500,
  });
  // Path and plan are fetched apart: a plan of another path is no plan.
  return job && data?.planes.length === job.path.elements.length - 1 ? data : undefined;
}
