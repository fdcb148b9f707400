import type { Tiles } from "../../api/client";
import { later } from "../../components/later";
import classes from "../../desk/Desk.module.css";
import { OutcomeTile, TileChoice, whatsOf } from "../../desk/OutcomeTile";
import { TileFrame, TileGrid } from "../../desk/TileGrid";
import type { TileDesk } from "../../desk/tiles";
import { LivePlot, type LivePlotProps, levelRange } from "./LivePlot";
import type { Frame } from "./spectrumFrame";

const PastTile = later(async () => (await import("./PastTile")).PastTile);

const LinesTable = later(async () => (await import("./LinesTable")).LinesTable);

/** Good first tiles. */
export const FIRST_TILES: Tiles = {
  count: 1,
  tiles: [
    { what: "spectrum", view: "curve" },
    { what: "past", view: "matrix" },
    { what: "lines", view: "table" },
    { what: "readings", view: "text" },
    { what: "trace", view: "values" },
    { what: "spectrum", view: "curve" },
  ],
};

/** What this area shows besides the series, tables and readings of its outcome. */
const ALSO = [
  { value: "spectrum", label: "Spectrum" },
  { value: "past", label: "Past looks" },
  { value: "lines", label: "Lines" },
];

/** True if a tile shows a table, so that none is needed below the plot. */
export const showsTable = (tiles: Tiles) =>
  tiles.tiles.slice(0, tiles.count).some((t) => t.what === "lines" || t.what.startsWith("table:"));

interface Props extends LivePlotProps {
  desk: TileDesk;
  frame: Frame | null;
  onMark: (hertz: number) => void;
}

function SpectrumTile(props: Props & { place: number }) {
  const { desk, place, frame, model } = props;
  const tile = desk.tiles.tiles[place];
  const label = `Tile ${place + 1}`;
  const choice = (
    <TileChoice
      place={place}
      tile={tile}
      whats={[...ALSO, ...(frame ? whatsOf(frame.outcome) : [])]}
      views={[]}
      onChange={(part) => desk.setTile(place, part)}
    />
  );
  if (tile.what === "spectrum") {
    return (
      <TileFrame label={label}>
        <LivePlot {...props} lead={desk.tiles.count > 1 ? choice : undefined} />
      </TileFrame>
    );
  }
  if (tile.what === "past") {
    return (
      <TileFrame label={label} head={choice}>
        <PastTile store={model.store} range={levelRange(frame, model)} />
      </TileFrame>
    );
  }
  if (tile.what === "lines") {
    return (
      <TileFrame label={label} head={choice}>
        <div className={classes.scroll}>
          {frame && <LinesTable frame={frame} model={model} onMark={props.onMark} />}
        </div>
      </TileFrame>
    );
  }
  return (
    <OutcomeTile
      place={place}
      tile={tile}
      look={frame}
      also={ALSO}
      onChange={(part) => desk.setTile(place, part)}
    />
  );
}

/** The tiles of the Spectrum area. */
export function SpectrumTiles(props: Props) {
  const { tiles, count } = props.desk.tiles;
  return (
    <TileGrid>
      {tiles.slice(0, count).map((_, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: tiles are known by their place
        <SpectrumTile key={place} {...props} place={place} />
      ))}
    </TileGrid>
  );
}
