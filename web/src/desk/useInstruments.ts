import { useQuery } from "@tanstack/react-query";
import { api, type Instrument } from "../api/client";

/** All instruments of the bench with their state. */
export function useInstruments() {
  return useQuery({
    queryKey: ["instruments"],
    queryFn: () => api.get<Instrument[]>("/api/instruments"),
    refetchInterval: 1000,
  });
}
