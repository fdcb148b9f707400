import { useQuery } from "@tanstack/react-query";
import { api, type Board } from "../api/client";

/** The photograph of a job's board, with its address; no board if it has none. */
export function useBoard(jobId: number | undefined) {
  const { data } = useQuery({
    queryKey: ["board", jobId],
    queryFn: async () => ({
      board: (await api.get<Board | undefined>(`/api/jobs/${jobId}/board`)) ?? null,
      // Another photograph has the same address.
      read: Date.now(),
    }),
    enabled: jobId !== undefined,
  });
  const board = data?.board ?? null;
  return {
    board,
    picture: {
      url: board ? `/api/jobs/${jobId}/board/picture?read=${data?.read}` : null,
      widthMetres: board?.widthMetres ?? 0,
      heightMetres: board?.heightMetres ?? 0,
    },
  };
}
