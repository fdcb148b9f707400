import { SegmentedControl, Select, Switch } from "@mantine/core";
import type { Control } from "../api/client";
import { QuantityField } from "../components/QuantityField";

/** A sensible step of a number: a decibel, a thousandth of a frequency, or a part of its range. */
function stepOf(c: Control): number {
  const value = Math.abs(Number(c.value));
  if (c.unit === "Hz") {
    return 10 ** Math.max(3, Math.floor(Math.log10(value || 1e6)) - 3);
  }
  if (c.unit === "dBm") {
    return 1;
  }
  return 10 ** Math.floor(Math.log10((c.highest - c.lowest) / 500));
}

/** Choices that fit beside one another; more of them unfold from a list. */
const MOST_BESIDE = 5;

/** What can be switched on an instrument, whatever it is. */
export function ControlField(props: {
  control: Control;
  /** The instrument. */
  of: string;
  disabled: boolean;
  onSet: (value: string) => void;
}) {
  const { control: c, disabled, onSet } = props;
  const name = `${c.label} of ${props.of}`;
  if (c.form === "SWITCH") {
    return (
      <Switch
        size="sm"
        aria-label={name}
        label={`${c.label} ${c.value}`}
        checked={c.value === "on"}
        disabled={disabled}
        onChange={(e) => onSet(e.currentTarget.checked ? "on" : "off")}
      />
    );
  }
  if (c.form === "NUMBER") {
    return (
      <span>
        {c.label}{" "}
        <QuantityField
          label={name}
          unit={c.unit}
          value={Number(c.value)}
          next={(v, up) => v + (up ? 1 : -1) * stepOf(c)}
          onCommit={(v) => onSet(String(v))}
        />
      </span>
    );
  }
  const data = c.choices.map((value) => ({ value, label: c.unit ? `${value} ${c.unit}` : value }));
  const list = data.length > MOST_BESIDE || data.some((d) => d.label.length > 12);
  return (
    <span className="choice">
      {c.label}{" "}
      {list ? (
        <Select
          size="xs"
          w={220}
          display="inline-block"
          aria-label={name}
          allowDeselect={false}
          disabled={disabled}
          data={data}
          value={c.value}
          onChange={(v) => v !== null && onSet(v)}
        />
      ) : (
        <SegmentedControl
          size="xs"
          aria-label={name}
          disabled={disabled}
          data={data}
          value={c.value}
          onChange={onSet}
        />
      )}
    </span>
  );
}
