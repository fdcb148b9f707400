import { useState } from "react";
import type { Job, Tiles } from "../api/client";
import { useKeys } from "../app/useKeys";
import { type ReadyTiles, useTiles } from "./tiles";
import { useFoundView } from "./useFoundView";
import { usePlaneMove } from "./usePlaneMove";

/** What a desk does with its session, whatever is measured. */
type DeskModel = Parameters<typeof useFoundView>[0] & {
  state: { findingId: number; measurement: string; guided: object | null; phase: string } | null;
  inOrder: <T>(work: () => Promise<T>) => Promise<T | null>;
  start: () => unknown;
  hold: () => unknown;
  stopGuided: () => unknown;
  keep: () => unknown;
};

/** What desks have in common: keys, tiles, the finding, the plane. */
export function useDeskParts(
  job: Job | undefined,
  model: DeskModel,
  area: string,
  first: Tiles,
  more?: ReadyTiles[],
) {
  const [opening, setOpening] = useState(false);
  const { state } = model;
  const desk = useTiles(area, first, more);
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
