import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { type Arrangement, api, type Tile, type Tiles } from "../api/client";

/** How many tiles a desk shows. */
export const COUNTS: Record<string, string> = {
  "1": "1 tile",
  "2": "2 tiles",
  "4": "4 tiles",
  "6": "6 tiles",
};

/** The count next above a wish, so that 3 are shown as 4. */
export const countFor = (n: number) =>
  [1, 2, 4, 6].find((count) => count >= Math.min(6, Math.round(n))) ?? 1;

/** Tiles that belong together, under the name of what they show. */
export interface ReadyTiles {
  name: string;
  tiles: Tiles;
}

export interface TileDesk {
  area: string;
  /** Arrangements that are always there. */
  ready: ReadyTiles[];
  tiles: Tiles;
  set: (tiles: Tiles) => void;
  setTile: (place: number, part: Partial<Tile>) => void;
  setCount: (count: number) => void;
  /** Arrangements that are kept by name. */
  kept: Arrangement[];
  /** The same, asked of the server now. */
  listed: () => Promise<Arrangement[]>;
  keep: (name: string) => Promise<void>;
  forget: (id: number) => Promise<void>;
}

/** All arrangements in their order, each with the key that takes it. */
export const arrangementsOf = (desk: TileDesk): ReadyTiles[] => [...desk.ready, ...desk.kept];

/** Keys that take an arrangement. */
export const MOST_KEYS = 9;

/** Tiles fill up with the first ones of the area where an arrangement says nothing. */
export function filled(tiles: Tiles, first: Tiles): Tiles {
  return { ...tiles, tiles: first.tiles.map((t, i) => tiles.tiles[i] ?? t) };
}

function stored(area: string, first: Tiles): Tiles {
  const text = sessionStorage.getItem(`rovnik-tiles-${area}`);
  return text ? filled(JSON.parse(text) as Tiles, first) : first;
}

/**
 * The tiles of an area, as they were left, and the arrangements under their names.
 *
 * @param more arrangements beside the first
 */
export function useTiles(area: string, first: Tiles, more: ReadyTiles[] = []): TileDesk {
  const queries = useQueryClient();
  const [held, setHeld] = useState(() => ({ area, tiles: stored(area, first) }));
  // A desk whose source is of another sort has other tiles.
  const tiles = held.area === area ? held.tiles : stored(area, first);
  if (held.area !== area) {
    setHeld({ area, tiles });
  }
  const asked = {
    queryKey: ["arrangements", area],
    queryFn: () => api.get<Arrangement[]>(`/api/arrangements?area=${area}`),
  };
  const { data: kept = [] } = useQuery(asked);
  const change = useCallback(
    (next: (now: Tiles) => Tiles) =>
      setHeld((now) => {
        const wanted = next(now.tiles);
        sessionStorage.setItem(`rovnik-tiles-${area}`, JSON.stringify(wanted));
        return { area, tiles: wanted };
      }),
    [area],
  );
  const set = useCallback((wanted: Tiles) => change(() => filled(wanted, first)), [change, first]);
  const setTile = useCallback(
    (place: number, part: Partial<Tile>) =>
      change((now) => ({
        ...now,
        tiles: now.tiles.map((t, i) => (i === place ? { ...t, ...part } : t)),
      })),
    [change],
  );
  const setCount = useCallback(
    (count: number) => change((now) => ({ ...now, count: countFor(count) })),
    [change],
  );
  const again = () => queries.invalidateQueries({ queryKey: ["arrangements", area] });
  return {
    area,
    ready: [{ name: "The first ones", tiles: first }, ...more],
    tiles,
    set,
    setTile,
    setCount,
    kept,
    listed: () => queries.fetchQuery(asked),
    keep: async (name) => {
      await api.post("/api/arrangements", { area, name, tiles });
      await again();
    },
    forget: async (id) => {
      await api.remove(`/api/arrangements/${id}`);
      await again();
    },
  };
}
