import { Button, Group, Text } from "@mantine/core";
import type { Finding, Outcome } from "../api/client";
import type { PlotMarker } from "../components/plotTypes";
import { ResultTableView } from "../components/ResultTableView";
import { withMinus } from "../components/units";
import classes from "./Desk.module.css";
import { OutcomePlot } from "./OutcomePlot";
import { ReadingRow } from "./ReadingColumn";

/** A finding with its picture, tables and readings; it can be kept as a run. */
export function FindingView(props: {
  finding: Finding;
  /** Undefined if it cannot be kept. */
  onKeep?: () => unknown;
  /** Puts what was found into the settings. */
  onTakeOver?: () => unknown;
  onClose: () => void;
}) {
  const o = props.finding.outcome;
  return (
    <div className={classes.finding} data-testid="finding">
      <Group justify="space-between" wrap="nowrap" align="flex-start">
        <div>
          <Text fw={600}>{o.title}</Text>
          <Text fz="sm">{withMinus(o.summary)}</Text>
        </div>
        <Group gap={6} wrap="nowrap">
          {props.onTakeOver && (
            <Button size="compact-sm" onClick={props.onTakeOver}>
              Take it over
            </Button>
          )}
          {props.onKeep && (
            <Button
              size="compact-sm"
              variant={props.onTakeOver ? "default" : "filled"}
              onClick={props.onKeep}
            >
              Keep as a run
            </Button>
          )}
          <Button size="compact-sm" variant="default" onClick={props.onClose}>
            Back to the live view
          </Button>
        </Group>
      </Group>
      {o.series.length > 0 && (
        <div className={classes.findingPlot}>
          <OutcomePlot title={o.title} outcome={o} markers={makers(o)} />
        </div>
      )}
      {o.readings.length > 0 && (
        <div className={classes.findingReadings}>
          {o.readings.map((r) => (
            <ReadingRow key={r.id} reading={r} />
          ))}
        </div>
      )}
      {o.tables.map((t) => (
        <ResultTableView key={t.id} table={t} />
      ))}
    </div>
  );
}

const SHORT: [string, string][] = [
  ["device", "DUT"],
  ["room", "room"],
  ["made in", "receiver"],
  ["unsure", "?"],
];

/** Who makes each line, written over it. */
function makers(o: Outcome): PlotMarker[] {
  const table = o.tables.find((t) => t.id === "whose-line");
  return (table?.rows ?? []).map(({ cells: [line, level, maker] }) => ({
    hertz: line.value ?? 0,
    level: level.value ?? 0,
    label: SHORT.find(([start]) => maker.text.startsWith(start))?.[1] ?? "",
  }));
}
