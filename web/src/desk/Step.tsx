import type { ReactNode } from "react";
import classes from "./Desk.module.css";

export type StepState = "done" | "attention" | "open";

const SHAPE: Record<StepState, string> = { done: "\u2713", attention: "\u26A0", open: "\u25CB" };

/** One step of the checklist with its live state. */
export function Step(props: {
  title: string;
  state: StepState;
  /** Beside the title. */
  aside?: ReactNode;
  children?: ReactNode;
}) {
  const colour =
    props.state === "done" ? classes.pass : props.state === "attention" ? classes.unsure : "";
  return (
    <section className={classes.step} aria-label={props.title} data-step={props.state}>
      <div className={classes.stepTitle}>
        <span className={colour}>{SHAPE[props.state]}</span>
        {props.title}
        <span style={{ marginLeft: "auto", fontWeight: 400, fontSize: "0.84rem" }}>
          {props.aside}
        </span>
      </div>
      {props.children}
    </section>
  );
}
