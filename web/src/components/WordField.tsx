import { TypedField } from "./TypedField";

/** Words inside a sentence: click or focus to edit. */
export function WordField(props: {
  label: string;
  value: string;
  /** What stands there when there are none. */
  none: string;
  error?: string;
  onCommit: (value: string) => unknown;
}) {
  return (
    <TypedField
      {...props}
      longest={80}
      show={(words) => words}
      read={(typed) => ({ value: typed })}
    />
  );
}
