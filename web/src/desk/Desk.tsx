import { VisuallyHidden } from "@mantine/core";
import type { ReactNode } from "react";
import classes from "./Desk.module.css";
import { useGlance } from "./useGlance";

/** The one shell of every measuring area: path, notice, steps, tiles, readings, run tape. */
export function Desk(props: {
  title: string;
  path: ReactNode;
  notice: ReactNode;
  steps: ReactNode;
  tiles: ReactNode;
  readings: ReactNode;
  tape: ReactNode;
  /** Dialogs over it. */
  children?: ReactNode;
}) {
  const glance = useGlance();
  return (
    <div className={classes.page} data-glance={glance}>
      <VisuallyHidden component="h1">{props.title}</VisuallyHidden>
      <div className={classes.path}>{props.path}</div>
      <div className={classes.notice}>{props.notice}</div>
      <aside className={classes.steps} aria-label="Steps">
        {props.steps}
      </aside>
      <div className={classes.desk}>{props.tiles}</div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a column that scrolls is reached by keys */}
      <aside className={classes.readings} aria-label="Readings" tabIndex={0}>
        {props.readings}
      </aside>
      <div className={classes.tape}>{props.tape}</div>
      {props.children}
    </div>
  );
}
