import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Instrument, type Job, type Recording } from "../api/client";

const KEY = "rovnik-source";

/** Instruments and recordings that an area can look at, and the one that is looked at. */
export function useSources(
  job: Job | undefined,
  instruments: Instrument[],
  fits: (instrument: Instrument) => boolean,
  /** False where only instruments can be looked at, first the one that the path ends at. */
  withRecordings = true,
) {
  const { data: recordings = [] } = useQuery({
    queryKey: ["recordings"],
    queryFn: () => api.get<Recording[]>("/api/recordings"),
  });
  const [chosen, setChosen] = useState<string | null>(sessionStorage.getItem(KEY));
  const receivers = instruments.filter(fits);
  const sources = [
    ...receivers.map((i) => ({ value: `i${i.id}`, label: i.name })),
    ...(withRecordings ? recordings : []).map((r) => ({
      value: `r${r.id}`,
      label: `recording ${r.name}`,
    })),
  ];
  const port = job?.path.elements.at(-1)?.instrumentId;
  const first = receivers.find((i) => i.id === port) ?? receivers[0];
  const ends = !withRecordings && first?.id === port ? first : undefined;
  const source =
    (ends && `i${ends.id}`) ??
    sources.find((s) => s.value === chosen)?.value ??
    (first ? `i${first.id}` : (sources[0]?.value ?? null));
  return {
    sources,
    source,
    choose: (wanted: string) => {
      sessionStorage.setItem(KEY, wanted);
      setChosen(wanted);
    },
  };
}
