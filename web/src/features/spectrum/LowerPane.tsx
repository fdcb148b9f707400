import { CloseButton, SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { ResultTableView } from "../../components/ResultTableView";
import classes from "../../desk/Desk.module.css";
import { LinesTable } from "./LinesTable";
import type { Frame } from "./spectrumFrame";
import type { SpectrumModel } from "./useSpectrum";

/** Tables under the plot: the lines, and what the readings asked for list. */
export function LowerPane(props: {
  frame: Frame;
  model: SpectrumModel;
  lines: boolean;
  onMark: (hertz: number) => void;
  onClose: () => void;
}) {
  const { frame, model } = props;
  const [chosen, setChosen] = useState("");
  const tables = frame.header.tables;
  const choices = [
    ...(props.lines ? [{ value: "lines", label: "Lines" }] : []),
    ...tables.map((t) => ({ value: t.id, label: t.title.split(",")[0] })),
  ];
  const shown = choices.find((c) => c.value === chosen)?.value ?? choices[0]?.value;
  const table = tables.find((t) => t.id === shown);
  return (
    <div className={classes.lower} data-testid="lower-pane">
      <div className={classes.lowerHead}>
        {choices.length > 1 && (
          <SegmentedControl
            size="xs"
            aria-label="Table"
            data={choices}
            value={shown}
            onChange={setChosen}
          />
        )}
        {props.lines && (
          <CloseButton size="sm" ml="auto" aria-label="Close the lines" onClick={props.onClose} />
        )}
      </div>
      {shown === "lines" && <LinesTable frame={frame} model={model} onMark={props.onMark} />}
      {table && <ResultTableView table={table} />}
    </div>
  );
}
