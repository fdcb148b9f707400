import { Tooltip } from "@mantine/core";
import { useState } from "react";
import { flushSync } from "react-dom";
import classes from "./QuantityField.module.css";

const WIDEST = 44;

/** What is typed as text inside a sentence: click or focus to edit. */
export function TypedField<T>(props: {
  label: string;
  value: T;
  /** As it is typed. */
  show: (value: T) => string;
  /** What stands there while it is not typed; the same if left out. */
  brief?: (value: T) => string;
  /** What was typed, or why it cannot be read. */
  read: (text: string) => { value: T } | { wrong: string };
  /** What stands there when nothing is typed. */
  none: string;
  longest: number;
  error?: string;
  onCommit: (value: T) => unknown;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState("");
  const shown = props.show(props.value);
  const text = draft ?? props.brief?.(props.value) ?? shown;
  const commit = (): boolean => {
    const typed = draft?.trim();
    if (typed === undefined || typed === shown) {
      setDraft(null);
      setWrong("");
      return true;
    }
    const read = props.read(typed);
    if ("wrong" in read) {
      setWrong(read.wrong);
      return false;
    }
    setDraft(null);
    setWrong("");
    props.onCommit(read.value);
    return true;
  };
  const error = wrong || props.error;
  return (
    <Tooltip
      label={error}
      opened={Boolean(error)}
      position="bottom-start"
      color="red"
      multiline
      w={280}
    >
      <input
        aria-label={props.label}
        aria-invalid={Boolean(error)}
        className={classes.field}
        style={{ width: `${Math.min(WIDEST, Math.max(3, (text || props.none).length))}.3ch` }}
        placeholder={props.none}
        maxLength={props.longest}
        value={text}
        onFocus={(e) => {
          // The whole of it stands there before any of it is selected.
          flushSync(() => setDraft(shown));
          e.currentTarget.select();
        }}
        onChange={(e) => setDraft(e.currentTarget.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            if (commit()) {
              e.currentTarget.blur();
            }
          } else if (e.key === "Escape") {
            setDraft(null);
            setWrong("");
            e.currentTarget.blur();
          }
        }}
      />
    </Tooltip>
  );
}
