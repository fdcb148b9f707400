import { Button, Menu } from "@mantine/core";
import { useRef } from "react";
import { Problem, type TraceRow } from "../../api/client";
import type { PlotCurve } from "../../components/plotTypes";
import { readForeignCsv } from "./foreignCsv";
import { ALL_LOOKS } from "./pastLooks";
import type { SpectrumModel } from "./useSpectrum";

const MOST_ROWS = 6;

const PLAIN: [TraceRow["mode"], number, string][] = [
  ["HIGHEST", 1, "highest hold"],
  ["LOWEST", 1, "lowest hold"],
  ["POWER_AVERAGE", 32, "power average of 32"],
  ["POWER_AVERAGE", 256, "power average of 256"],
  ["EXPONENTIAL_AVERAGE", 16, "fading average, 1/16"],
  ["LOG_AVERAGE", 64, "log average of 64"],
  ["QUASI_PEAK", 1, "quasi-peak (CISPR)"],
  ["CISPR_AVERAGE", 1, "average (CISPR)"],
  ["LIVE", 1, "newest alone"],
  ["FROZEN", 1, "frozen as it is now"],
];

function historyWords(count: number): string {
  if (count === 0) {
    return "no history";
  }
  return count === ALL_LOOKS ? "history of all" : `history of the last ${count}`;
}

interface Props {
  model: SpectrumModel;
  history: number;
  onHistory: (count: number) => void;
  /** A trace from elsewhere was read. */
  onForeign: (curve: PlotCurve) => void;
}

/** Adds looks at the same signal to the plot. */
export function TraceMenu({ model, history, onHistory, onForeign }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const read = async (chosen: File | undefined) => {
    if (chosen) {
      try {
        onForeign(readForeignCsv(chosen.name, await chosen.text()));
      } catch (e) {
        model.setProblem(new Problem((e as Error).message, "csv", 0));
      }
    }
  };
  const rows = model.state?.settings.view.traces ?? [];
  const full = rows.length >= MOST_ROWS;
  const add = (row: TraceRow) => model.changeView((now) => ({ traces: [...now.traces, row] }));
  const pairs = rows.flatMap((_, b) => rows.map((__, a) => [a, b])).filter(([a, b]) => a < b);
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <Button size="compact-xs" variant="subtle" aria-label="Add a trace">
          + trace
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {PLAIN.map(([mode, count, label]) => (
          <Menu.Item key={label} disabled={full} onClick={() => add({ mode, count, a: 0, b: 0 })}>
            {label}
          </Menu.Item>
        ))}
        {pairs.length > 0 && <Menu.Divider />}
        {pairs.flatMap(([a, b]) => [
          <Menu.Item
            key={`${a}-${b}`}
            disabled={full}
            onClick={() => add({ mode: "RATIO", count: 1, a, b })}
          >
            {`trace ${a + 1} \u2212 trace ${b + 1} in dB`}
          </Menu.Item>,
          <Menu.Item
            key={`${a}-${b} power`}
            disabled={full}
            onClick={() => add({ mode: "REST", count: 1, a, b })}
          >
            {`trace ${a + 1} \u2212 trace ${b + 1} in power`}
          </Menu.Item>,
        ])}
        <Menu.Divider />
        {[0, 16, 64, 256, ALL_LOOKS].map((n) => (
          <Menu.Item key={n} disabled={history === n} onClick={() => onHistory(n)}>
            {historyWords(n)}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item onClick={() => file.current?.click()}>a CSV from elsewhere ...</Menu.Item>
      </Menu.Dropdown>
      <input
        ref={file}
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        aria-label="CSV from elsewhere"
        hidden
        onChange={(e) => {
          read(e.currentTarget.files?.[0]);
          e.currentTarget.value = "";
        }}
      />
    </Menu>
  );
}
