import type { ReactNode } from "react";
import type { Job, PlaceSettings } from "../../api/client";
import { BoardContext, freshName } from "../../desk/board";
import { useBoard } from "../../desk/useBoard";
import type { RecordsModel } from "../modulation/useRecords";

/** Lays the photograph under the places; a click on the board says where the probe is. */
export function BoardAround(props: {
  job: Job | undefined;
  model: RecordsModel<PlaceSettings>;
  children: ReactNode;
}) {
  const { job, model } = props;
  const { picture } = useBoard(job?.id);
  const names = () =>
    model.frame?.outcome.tables.find((t) => t.id === "places")?.rows.map((r) => r.cells[0].text) ??
    [];
  return (
    <BoardContext.Provider
      value={{
        ...picture,
        onPlace: (acrossMetres, upMetres, name) =>
          model.change({ acrossMetres, upMetres, place: name ?? freshName(names()) }),
      }}
    >
      {props.children}
    </BoardContext.Provider>
  );
}
