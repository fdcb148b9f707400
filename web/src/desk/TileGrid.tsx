import type { ReactNode } from "react";
import classes from "./Desk.module.css";

/** Tiles beside and below one another. */
export function TileGrid({ children }: { children: ReactNode[] | ReactNode[][] }) {
  const tiles = children.flat();
  return (
    <div className={classes.tiles} data-count={Math.min(6, tiles.length)}>
      {tiles}
    </div>
  );
}

/** One tile: what it shows stands at its top, unless the plot in it has room for that. */
export function TileFrame(props: { label: string; head?: ReactNode; children: ReactNode }) {
  return (
    <section className={classes.tile} aria-label={props.label}>
      {props.head && <div className={classes.tileHead}>{props.head}</div>}
      <div className={classes.tileBody}>{props.children}</div>
    </section>
  );
}
