import { Cell, useCell } from "../api/cell";

/**
 * Where the pointer is, one place for each quantity: every tile that has this axis shows it. The
 * quantity is the name of the axis with its unit, so that an offset is no frequency.
 */
const places = new Map<string, Cell<number | null>>();

export const axisOf = (name: string, unit: string) => `${name} ${unit}`;

export function cursorOf(axis: string): Cell<number | null> {
  let cell = places.get(axis);
  if (!cell) {
    cell = new Cell<number | null>(null);
    places.set(axis, cell);
  }
  return cell;
}

/** The place on an axis, null while the pointer is nowhere on it. */
export const useCursor = (axis: string) => useCell(cursorOf(axis));
