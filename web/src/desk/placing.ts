import { createContext, useContext } from "react";
import type { Zooms } from "./SeriesPlot";

/** What a click on a place of an axis does on this desk. */
export interface Placing {
  axis: string;
  take: (x: number) => unknown;
}

export const PlacingContext = createContext<Placing | undefined>(undefined);

/** Zooms that all tiles of one axis share, where what is drawn follows them. */
export const ZoomsContext = createContext<{ axis: string; zooms: Zooms } | undefined>(undefined);

/** The zooms that this axis shares, if it does. */
export function useSharedZooms(axis: string): Zooms | undefined {
  const shared = useContext(ZoomsContext);
  return shared?.axis === axis ? shared.zooms : undefined;
}

/** What a click on a place of this axis does, if anything. */
export function usePlacing(axis: string) {
  const placing = useContext(PlacingContext);
  return placing?.axis === axis ? placing.take : undefined;
}
