import { createContext, useContext } from "react";

/** A photograph of the board, and what a click on it does. */
export interface BoardPicture {
  /** Null without a photograph: the board is drawn as large as its places ask for. */
  url: string | null;
  widthMetres: number;
  heightMetres: number;
  /** A place was pointed at: a new one, or one that is there by its name; nobody cares without. */
  onPlace?: (acrossMetres: number, upMetres: number, name?: string) => unknown;
}

export const BoardContext = createContext<BoardPicture | undefined>(undefined);

export const useBoardPicture = () => useContext(BoardContext);

/** So near to a place a click means it, mm. */
const NEAR_MM = 3;

/** The place that a click in millimetres means, if it is one that is there. */
export function placeNear<P extends { across: number; up: number }>(
  places: P[],
  acrossMm: number,
  upMm: number,
): P | undefined {
  const off = (p: P) => Math.hypot(1000 * p.across - acrossMm, 1000 * p.up - upMm);
  return places.filter((p) => off(p) <= NEAR_MM).sort((a, b) => off(a) - off(b))[0];
}

/** A name that no place has yet. */
export function freshName(taken: string[]): string {
  let n = taken.length + 1;
  while (taken.includes(`place ${n}`)) {
    n++;
  }
  return `place ${n}`;
}
