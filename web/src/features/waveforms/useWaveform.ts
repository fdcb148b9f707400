import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import {
  api,
  type CarrierDescription,
  type Job,
  type Problem,
  type Waveform,
  type WaveformPart,
  type WaveformPreview,
  type WaveformRequest,
} from "../../api/client";
import { firstPart } from "./parts";

/** A waveform that is being described, and what it would be like. */
export function useWaveform(
  carrier: CarrierDescription,
  job: Job | undefined,
  levelDbm: number | null,
  first: Partial<WaveformPart> = {},
) {
  const [parts, setParts] = useState<WaveformPart[]>(() => [
    { ...firstPart(first.kind ?? "single-carrier", carrier), ...first },
  ]);
  const [sampleRateHz, setSampleRateHz] = useState(0);
  const [length, setLength] = useState(0);
  const [noiseDb, setNoiseDb] = useState<number | null>(null);

  const single = parts.length === 1 && parts[0].kind === "single-carrier";
  const request: WaveformRequest = {
    kind: single ? "single-carrier" : "sum",
    carrier: single ? parts[0].carrier : null,
    parts: single ? null : parts,
    sampleRateHz: sampleRateHz || null,
    symbols: single && length ? length : null,
    seconds: !single && length ? length : null,
    centreHz: null,
    ebN0Db: single ? noiseDb : null,
    carrierToNoiseDb: single ? null : noiseDb,
    name: null,
  };
  const asked = { waveform: request, jobId: job?.id ?? null, levelDbm };
  const { data, error, isFetching } = useQuery({
    queryKey: ["waveform-preview", JSON.stringify(asked)],
    queryFn: () => api.post<WaveformPreview>("/api/waveforms/preview", asked),
    placeholderData: (before) => before,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const change = (place: number, part: Partial<WaveformPart>) => {
    if (part.kind && part.kind !== parts[place].kind) {
      setLength(0); // symbols and seconds are not the same
    }
    setParts((now) => now.map((p, i) => (i === place ? { ...p, ...part } : p)));
  };
  return {
    parts,
    single,
    change,
    add: () => {
      setLength(0);
      setParts((now) => [...now, firstPart("carrier", carrier)]);
    },
    remove: (place: number) => setParts((now) => now.filter((_, i) => i !== place)),
    sampleRateHz,
    setSampleRateHz,
    length,
    setLength,
    noiseDb,
    setNoiseDb,
    preview: error ? undefined : data,
    wrong: (error as Problem | null)?.message ?? "",
    busy: isFetching,
    make: () => api.post<Waveform>("/api/waveforms", request),
  };
}
