import { useState } from "react";
import type { Job, Tiles } from "../../api/client";
import { useKeys } from "../../app/useKeys";
import { useTiles } from "../../desk/tiles";
import { useFoundView } from "../../desk/useFoundView";
import { useInstruments } from "../../desk/useInstruments";
import { usePlaneMove } from "../../desk/usePlaneMove";
import { useSources } from "../../desk/useSources";
import type { RecordsModel } from "./useRecords";

/** The sources of this area. */
export function useRecordSources(job: Job | undefined) {
  const { data: instruments = [] } = useInstruments();
  return { instruments, ...useSources(job, instruments, (i) => i.kind === "IQ_RECEIVER") };
}

/** What all desks of single records have: keys, tiles, the finding, the plane. */
export function useDeskParts<S extends object>(
  job: Job | undefined,
  model: RecordsModel<S>,
  area: string,
  first: Tiles,
) {
  const [opening, setOpening] = useState(false);
  const { state } = model;
  const desk = useTiles(area, first);
  const plane = usePlaneMove(job, model.inOrder);
  const found = useFoundView(model);
  const toggle = () =>
    state?.guided ? model.stopGuided() : state?.phase === "RUNNING" ? model.hold() : model.start();
  useKeys({
    " ": toggle,
    k: () => model.keep(),
    "[": () => plane.moveBy(-1),
    "]": () => plane.moveBy(1),
  });
  return { desk, plane, found, toggle, opening, setOpening };
}
