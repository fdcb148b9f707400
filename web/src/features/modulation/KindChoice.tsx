import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { KINDS, type Kind } from "./kinds";

/** Which of the measurements of a carrier. */
export function KindChoice(props: { kind: Kind; onKind: (kind: Kind) => void }) {
  return (
    <div className={classes.sentence}>
      <Choice
        label="Measured"
        value={props.kind}
        choices={KINDS}
        onChange={(v) => props.onKind(v as Kind)}
      />
    </div>
  );
}
