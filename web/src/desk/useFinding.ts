import { useQuery } from "@tanstack/react-query";
import { api, type Finding } from "../api/client";

/** The newest finding of a session, undefined if there is none. */
export function useFinding(model: {
  url: string;
  source: string | null;
  state: { findingId: number; measurement: string } | null;
}) {
  const id = model.state?.findingId ?? 0;
  const { data } = useQuery({
    queryKey: ["finding", model.source, model.state?.measurement, id],
    enabled: id > 0,
    queryFn: () => api.get<Finding>(`${model.url}/finding`),
  });
  return id > 0 ? data : undefined;
}
