import { Textarea } from "@mantine/core";
import { useState } from "react";
import { formatHertz, parseQuantity } from "../../components/units";
import { FormModal } from "../../desk/FormModal";
import type { NetworkModel } from "./useNetworks";

/** Stretches of a segmented sweep, one a line. */
export function SegmentsEditor({ model, onClose }: { model: NetworkModel; onClose: () => void }) {
  const before = model.analyzer.sweep?.segments ?? [];
  const [text, setText] = useState(
    before
      .map((s) => `${formatHertz(s.startHz)} to ${formatHertz(s.stopHz)}, ${s.points}`)
      .join("\n"),
  );
  const [wrong, setWrong] = useState("");
  const done = () => {
    const segments = [];
    for (const [i, line] of text.split("\n").entries()) {
      if (!line.trim()) {
        continue;
      }
      const m = /^(.+?)\s+to\s+(.+?)\s*,\s*(\d+)\s*$/.exec(line.trim());
      const start = m && parseQuantity(m[1], "Hz");
      const stop = m && parseQuantity(m[2], "Hz");
      if (!m || start === null || stop === null) {
        setWrong(`Line ${i + 1}: write it as "440M to 455M, 101".`);
        return;
      }
      segments.push({ startHz: start, stopHz: stop, points: Number(m[3]) });
    }
    if (segments.length === 0) {
      setWrong("Write at least one segment.");
      return;
    }
    model.analyzer.change({ type: "SEGMENTS", segments });
    onClose();
  };
  return (
    <FormModal
      title="Segments of the sweep"
      wrong={wrong}
      done="Sweep these"
      onClose={onClose}
      onDone={done}
    >
      <Textarea
        label="One segment a line: start to stop, points"
        placeholder={"440M to 455M, 101\n455M to 462M, 701"}
        autosize
        minRows={4}
        data-autofocus
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
    </FormModal>
  );
}
