import { Autocomplete } from "@mantine/core";
import { useRef, useState } from "react";
import { allCommands, runEntry } from "./commands";
import { useKeys } from "./useKeys";

/** One line for everything: a value, a setting with a value, or the name of an action. */
export function QuickEntry() {
  const [text, setText] = useState("");
  const [error, setError] = useState("");
  const [names, setNames] = useState<string[]>([]);
  const input = useRef<HTMLInputElement>(null);
  // What was not understood is still there, to be mended or typed over.
  useKeys({
    "/": () => {
      input.current?.focus();
      input.current?.select();
    },
  });

  const run = async () => {
    // The keys belong to the screen again at once; a refused entry comes back to be mended.
    input.current?.blur();
    setText("");
    const wrong = await runEntry(text);
    if (wrong) {
      setText(text);
      input.current?.focus();
      setError(wrong);
    }
  };

  return (
    <Autocomplete
      ref={input}
      aria-label="Quick entry"
      placeholder="/  type a value or an action"
      size="xs"
      w={330}
      value={text}
      error={error || undefined}
      data={names}
      limit={9}
      styles={{
        error: {
          position: "absolute",
          top: 38,
          zIndex: 400,
          background: "var(--sheet)",
          border: "1px solid var(--rule)",
          padding: "4px 8px",
        },
      }}
      onFocus={() => setNames(allCommands().map((c) => (c.argument ? `${c.name} ` : c.name)))}
      onBlur={() => setError("")}
      onChange={(value) => {
        setText(value);
        setError("");
      }}
      onKeyDown={(e) => {
        if (e.key === "Enter") {
          e.preventDefault();
          run();
        } else if (e.key === "Escape") {
          setText("");
          input.current?.blur();
        }
      }}
    />
  );
}
