import { Tooltip } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import classes from "./QuantityField.module.css";
import { formatHertz, parseQuantity, step125 } from "./units";

interface Props {
  label: string;
  value: number;
  /** "Hz", "dBm", "dB", "ppm" or "" for a count. */
  unit: string;
  /** What a count is of, such as "mm": it stands behind the value and may be typed or left out. */
  suffix?: string;
  /** How the value is shown; frequencies get their prefix by default. */
  format?: (value: number) => string;
  /** Arrow keys and wheel: the next value up or down; 1-2-5 steps by default. */
  next?: (value: number, up: boolean) => number;
  /** Other words that may be typed, such as "auto". */
  words?: Record<string, number>;
  /** Only whole numbers, as of a count. */
  whole?: boolean;
  error?: string;
  onCommit: (value: number) => void;
}

/** A value inside a sentence: click or focus to edit, arrows and wheel step it. */
export function QuantityField(props: Props) {
  const { suffix } = props;
  const show =
    props.format ??
    ((v: number) => (suffix ? `${Number(v.toPrecision(6))} ${suffix}` : shown(v, props.unit)));
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const step = props.next ?? step125;

  const commit = () => {
    if (draft === null) {
      return;
    }
    const word = props.words?.[draft.trim().toLowerCase()];
    const typed =
      suffix && draft.trim().endsWith(suffix) ? draft.trim().slice(0, -suffix.length) : draft;
    const value = word ?? parseQuantity(typed, props.unit);
    if (value === null || Number.isNaN(value)) {
      setWrong(`Write a number${props.unit === "Hz" ? " such as 458.525M or 200k" : ""}.`);
      return;
    }
    if (props.whole && !Number.isInteger(value)) {
      setWrong("Write a whole number.");
      return;
    }
    setDraft(null);
    setWrong("");
    if (value !== props.value) {
      props.onCommit(value);
    }
  };

  // React's wheel listener is passive; the page would scroll with the value.
  const latest = useRef({ value: props.value, step, onCommit: props.onCommit });
  latest.current = { value: props.value, step, onCommit: props.onCommit };
  useEffect(() => {
    const element = input.current;
    const turn = (e: WheelEvent) => {
      if (document.activeElement === element) {
        e.preventDefault();
        setDraft(null);
        const { value, step: move, onCommit } = latest.current;
        onCommit(move(value, e.deltaY < 0));
      }
    };
    element?.addEventListener("wheel", turn, { passive: false });
    return () => element?.removeEventListener("wheel", turn);
  }, []);

  const text = draft ?? show(props.value);
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
        ref={input}
        aria-label={props.label}
        aria-invalid={Boolean(error)}
        className={classes.field}
        style={{ width: `${Math.max(3, text.length)}.3ch` }}
        value={text}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setDraft(e.currentTarget.value)}
        onBlur={() => {
          commit();
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            commit();
            e.currentTarget.select();
          } else if (e.key === "Escape") {
            setDraft(null);
            setWrong("");
            e.currentTarget.blur();
          } else if (e.key === "ArrowUp" || e.key === "ArrowDown") {
            e.preventDefault();
            setDraft(null);
            props.onCommit(step(props.value, e.key === "ArrowUp"));
          }
        }}
      />
    </Tooltip>
  );
}

function shown(value: number, unit: string): string {
  if (unit === "Hz") {
    return formatHertz(value);
  }
  return unit ? `${Number(value.toPrecision(7))} ${unit}` : String(value);
}
