import { Select } from "@mantine/core";
import { type ReactNode, useContext } from "react";
import type { Outcome, Tile } from "../api/client";
import { later } from "../components/later";
import { ResultTableView } from "../components/ResultTableView";
import { BESIDE, BesideContext, besideOf } from "./beside";
import { isMatrix, type Look, VIEWS, viewsOf } from "./catalogue";
import classes from "./Desk.module.css";
import { alike, dataOf, mainOf } from "./outcomes";
import { ReadingColumn } from "./ReadingColumn";
import { SharesTable } from "./SharesTable";
import { TileFrame } from "./TileGrid";

const BesideTile = later(async () => (await import("./BesideTile")).BesideTile);

/** All series of data that share the axis of the main one. */
export const ALL = "all";

/** Something that a tile can show. */
interface What {
  value: string;
  label: string;
}

/** What an outcome has to show in tiles: its series, its tables, its readings. */
export function whatsOf(o: Outcome): What[] {
  const main = mainOf(o);
  const several = main && dataOf(o).filter((s) => !isMatrix(s) && alike(s, main)).length > 1;
  return [
    ...(several ? [{ value: ALL, label: "All traces" }] : []),
    ...dataOf(o).map((s) => ({ value: s.id, label: s.label || s.quantity })),
    ...o.tables.map((t) => ({ value: `table:${t.id}`, label: t.title.split(",")[0] })),
    ...(o.readings.length ? [{ value: "readings", label: "Readings" }] : []),
  ];
}

/** The choice of what a tile shows and how. */
export function TileChoice(props: {
  place: number;
  tile: Tile;
  whats: What[];
  views: string[];
  /** Something else stands beside it. */
  narrow?: boolean;
  onChange: (part: Partial<Tile>) => void;
}) {
  const { place, tile, whats, views, narrow } = props;
  const samples = useContext(BesideContext) !== undefined;
  const known = [...whats, ...(samples ? BESIDE : [])].some((w) => w.value === tile.what);
  const own = known ? whats : [{ value: tile.what, label: "nothing yet" }, ...whats];
  return (
    <>
      <Select
        aria-label={`What tile ${place + 1} shows`}
        size="xs"
        w={narrow ? 106 : 144}
        comboboxProps={{ width: 230, position: "bottom-start" }}
        allowDeselect={false}
        data={samples ? [...own, { group: "the same samples", items: BESIDE }] : own}
        value={tile.what}
        onChange={(what) => what && props.onChange({ what })}
      />
      {views.length > 1 && (
        <Select
          aria-label={`View of tile ${place + 1}`}
          size="xs"
          w={narrow ? 76 : 110}
          comboboxProps={{ width: 130, position: "bottom-start" }}
          allowDeselect={false}
          data={views.map((value) => ({ value, label: VIEWS[value].label }))}
          value={views.includes(tile.view) ? tile.view : views[0]}
          onChange={(view) => view && props.onChange({ view })}
        />
      )}
    </>
  );
}

/** One tile of an outcome of any kind, or of the samples that it was made of. */
export function OutcomeTile(props: {
  place: number;
  tile: Tile;
  /** What it is called; its number by default. */
  label?: string;
  look: Look | null;
  /** Further things that the area can show. */
  also?: What[];
  onChange: (part: Partial<Tile>) => void;
}) {
  const { also = [], tile, look } = props;
  const whats = [...also, ...(look ? whatsOf(look.outcome) : [])];
  const of = besideOf(tile.what);
  return of ? (
    <BesideTile {...props} whats={whats} of={of} />
  ) : (
    <LookTile {...props} whats={whats} what={tile.what} />
  );
}

export interface LookTileProps {
  place: number;
  tile: Tile;
  label?: string;
  look: Look | null;
  /** What the look has of what the tile shows. */
  what: string;
  /** What can be chosen instead. */
  whats: What[];
  /** Said beside the choice. */
  note?: ReactNode;
  /** Said where there is nothing. */
  empty?: string;
  onChange: (part: Partial<Tile>) => void;
}

/** A part of a look. */
export function LookTile(props: LookTileProps) {
  const { place, tile, look, what, whats } = props;
  const outcome = look?.outcome;
  const all = what === ALL;
  const series = all ? outcome && mainOf(outcome) : outcome?.series.find((s) => s.id === what);
  const views = all ? ["curve"] : series ? viewsOf(series, look?.arrays) : [];
  const view = views.includes(tile.view) ? tile.view : views[0];
  const choice = (
    <>
      <TileChoice
        place={place}
        tile={tile}
        whats={whats}
        views={views}
        narrow={props.note !== undefined}
        onChange={props.onChange}
      />
      {props.note}
    </>
  );
  const label = props.label ?? `Tile ${place + 1}`;
  if (look && series && view) {
    const lead = view === "curve" ? choice : null;
    return (
      <TileFrame label={label} head={lead ? undefined : choice}>
        {VIEWS[view].draw({ look, series, all, lead })}
      </TileFrame>
    );
  }
  const table = outcome?.tables.find((t) => `table:${t.id}` === what);
  return (
    <TileFrame label={label} head={choice}>
      <div className={classes.scroll}>
        {table?.columns[1]?.label.startsWith("Share") ? (
          <SharesTable table={table} />
        ) : table ? (
          <ResultTableView table={table} />
        ) : outcome && what === "readings" ? (
          <div className={classes.readingTile}>
            <ReadingColumn readings={outcome.readings} />
          </div>
        ) : (
          <p className={classes.small}>
            {props.empty ??
              (outcome ? "There is none of this now. Choose another." : "Nothing measured yet.")}
          </p>
        )}
      </div>
    </TileFrame>
  );
}
