import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type Outcome, type Watch } from "../../api/client";

const EVERY_MILLIS = 2000;

/** Long watches of a job, the newest first. */
export function useWatches(jobId: number | undefined) {
  return useQuery({
    queryKey: ["watches", jobId],
    queryFn: () => api.get<Watch[]>(`/api/jobs/${jobId}/watches`),
    enabled: jobId !== undefined,
    refetchInterval: EVERY_MILLIS,
  });
}

/** A stretch of a watch, seconds since 1970; undefined where it ends by itself. */
export interface Stretch {
  from?: number;
  to?: number;
}

/** How a stretch is asked for. */
export const queryOf = ({ from, to }: Stretch): string =>
  [
    from === undefined ? "" : `fromMillis=${Math.floor(1000 * from)}`,
    to === undefined ? "" : `toMillis=${Math.ceil(1000 * to)}`,
  ]
    .filter(Boolean)
    .join("&");

/** So many lowest and highest values: a line through them is no slower to draw than it must be. */
const COLUMNS = 600;

/** What a stretch of a watch came to; asked for again while the watch goes on. */
export function useWatchOutcome(watch: Watch | undefined, stretch: Stretch) {
  const query = queryOf(stretch);
  return useQuery({
    queryKey: ["watch-outcome", watch?.id, query],
    queryFn: () =>
      api.get<Outcome>(`/api/watches/${watch?.id}/outcome?columns=${COLUMNS}&${query}`),
    enabled: watch !== undefined,
    refetchInterval: watch?.endedMillis === null ? EVERY_MILLIS : false,
    placeholderData: keepPreviousData,
  });
}

/** How far back is shown. */
export const RANGES: Record<string, string> = {
  all: "all of it",
  "3600": "the last hour",
  "28800": "the last 8 hours",
  "86400": "the last day",
  "604800": "the last week",
};

/** The stretch that is shown: zoomed into, or so far back from the end. */
export function stretchOf(
  watch: Watch | undefined,
  range: string,
  zoomed: [number, number] | undefined,
): Stretch {
  if (zoomed) {
    return { from: zoomed[0], to: zoomed[1] };
  }
  if (range === "all" || !watch) {
    return {};
  }
  // By the minute: a stretch that moved with every question would be another one each time.
  const end = watch.endedMillis ?? Math.ceil(Date.now() / 60_000) * 60_000;
  return { from: Math.max(watch.beganMillis, end - 1000 * Number(range)) / 1000 };
}
