import { useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { api, type Job } from "../api/client";

/** Moves the reading plane of a job to a place, or by some: shown at once, then told the server. */
export function usePlaneMove(
  job: Job | undefined,
  inOrder: <T>(work: () => Promise<T>) => Promise<T | null>,
) {
  const queries = useQueryClient();
  const plane = useRef(job?.path.readingPlane ?? 0);
  const moving = useRef(0);
  if (moving.current === 0) {
    // While a move is on its way, an older answer must not turn it back.
    plane.current = job?.path.readingPlane ?? 0;
  }
  const moveTo = async (wanted: number) => {
    if (!job || wanted < 0 || wanted > job.path.elements.length - 2) {
      return;
    }
    // Shown at once, so that the next key press builds on it.
    plane.current = wanted;
    moving.current++;
    queries.cancelQueries({ queryKey: ["jobs"] });
    queries.setQueryData<Job[]>(["jobs"], (jobs) =>
      jobs?.map((j) => (j.id === job.id ? { ...j, path: { ...j.path, readingPlane: wanted } } : j)),
    );
    await inOrder(async () => {
      try {
        await api.put(`/api/jobs/${job.id}/reading-plane`, { plane: wanted });
      } finally {
        moving.current--;
      }
      if (moving.current === 0) {
        await queries.invalidateQueries({ queryKey: ["jobs"] });
      }
      return undefined;
    });
  };
  return { moveTo, moveBy: (steps: number) => moveTo(plane.current + steps) };
}
