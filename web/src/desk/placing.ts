import { createContext, useContext } from "react";

/** What a click on a place of an axis does on this desk. */
export interface Placing {
  axis: string;
  take: (x: number) => unknown;
}

export const PlacingContext = createContext<Placing | undefined>(undefined);

/** What a click on a place of this axis does, if anything. */
export function usePlacing(axis: string) {
  const placing = useContext(PlacingContext);
  return placing?.axis === axis ? placing.take : undefined;
}
