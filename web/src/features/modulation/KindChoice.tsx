import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";

/** Which of the measurements of an area. */
export function KindChoice<K extends string>(props: {
  kinds: Record<K, string>;
  kind: K;
  onKind: (kind: K) => void;
}) {
  return (
    <div className={classes.sentence}>
      <Choice
        label="Measured"
        value={props.kind}
        choices={props.kinds}
        onChange={(v) => props.onKind(v as K)}
      />
    </div>
  );
}
