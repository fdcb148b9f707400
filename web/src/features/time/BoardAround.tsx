import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { api, type Board, type Job, type PlaceSettings } from "../../api/client";
import { BoardContext, freshName } from "../../desk/board";
import type { RecordsModel } from "../modulation/useRecords";

/** The photograph of a job's board; null if it has none. */
export function useBoard(job: Job | undefined) {
  return useQuery({
    queryKey: ["board", job?.id],
    queryFn: async () => ({
      board: (await api.get<Board | undefined>(`/api/jobs/${job?.id}/board`)) ?? null,
      // Another photograph has the same address.
      read: Date.now(),
    }),
    enabled: job !== undefined,
  });
}

/** Lays the photograph under the places; a click on the board says where the probe is. */
export function BoardAround(props: {
  job: Job | undefined;
  model: RecordsModel<PlaceSettings>;
  children: ReactNode;
}) {
  const { job, model } = props;
  const { data } = useBoard(job);
  const board = data?.board;
  const names = () =>
    model.frame?.outcome.tables.find((t) => t.id === "places")?.rows.map((r) => r.cells[0].text) ??
    [];
  return (
    <BoardContext.Provider
      value={{
        url: board ? `/api/jobs/${job?.id}/board/picture?read=${data?.read}` : null,
        widthMetres: board?.widthMetres ?? 0,
        heightMetres: board?.heightMetres ?? 0,
        onPlace: (acrossMetres, upMetres, name) =>
          model.change({ acrossMetres, upMetres, place: name ?? freshName(names()) }),
      }}
    >
      {props.children}
    </BoardContext.Provider>
  );
}
