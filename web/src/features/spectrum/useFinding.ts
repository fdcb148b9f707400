import { useQuery } from "@tanstack/react-query";
import { api, type Finding } from "../../api/client";
import type { SpectrumModel } from "./useSpectrum";

/** The newest finding of the source, undefined if there is none. */
export function useFinding(model: SpectrumModel) {
  const id = model.state?.findingId ?? 0;
  const source = model.state?.source;
  const { data } = useQuery({
    queryKey: ["finding", source, id],
    enabled: id > 0,
    queryFn: () => api.get<Finding>(`/api/live/${source}/finding`),
  });
  return id > 0 ? data : undefined;
}
