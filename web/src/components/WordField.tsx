import { Tooltip } from "@mantine/core";
import { useState } from "react";
import classes from "./QuantityField.module.css";

/** Words inside a sentence: click or focus to edit. */
export function WordField(props: {
  label: string;
  value: string;
  /** What stands there when there are none. */
  none: string;
  error?: string;
  onCommit: (value: string) => unknown;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const text = draft ?? props.value;
  const commit = () => {
    const wanted = draft?.trim();
    setDraft(null);
    if (wanted !== undefined && wanted !== props.value) {
      props.onCommit(wanted);
    }
  };
  return (
    <Tooltip
      label={props.error}
      opened={Boolean(props.error)}
      position="bottom-start"
      color="red"
      multiline
      w={280}
    >
      <input
        aria-label={props.label}
        aria-invalid={Boolean(props.error)}
        className={classes.field}
        style={{ width: `${Math.max(3, (text || props.none).length)}.3ch` }}
        placeholder={props.none}
        maxLength={80}
        value={text}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setDraft(e.currentTarget.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            commit();
            e.currentTarget.blur();
          } else if (e.key === "Escape") {
            setDraft(null);
            e.currentTarget.blur();
          }
        }}
      />
    </Tooltip>
  );
}
