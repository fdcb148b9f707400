import { Button, Group, SegmentedControl, Table } from "@mantine/core";
import { useState } from "react";
import { download } from "../../components/download";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, signed } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import type { Frame } from "./spectrumFrame";
import type { SpectrumModel } from "./useSpectrum";

/** All lines of the newest frame, by level or by frequency; a click sets the marker. */
export function LinesTable(props: {
  frame: Frame;
  model: SpectrumModel;
  onMark: (hertz: number) => void;
}) {
  const { frame, model } = props;
  const [order, setOrder] = useState("level");
  const lines = model.state?.settings.lines ?? { threshold: null, excursionDb: 6, most: 32 };
  const peaks = [...frame.header.peaks];
  const top = peaks[0]?.level ?? 0;
  if (order === "frequency") {
    peaks.sort((a, b) => a.frequencyHz - b.frequencyHz);
  }
  // The rank is the key: a row must stay a row while its line follows the frames.
  const ranked = peaks.map((p, i) => ({ ...p, rank: i + 1 }));
  const unit = frame.header.unit;
  const set = (part: Partial<typeof lines>) =>
    model.change((now) => ({ lines: { ...now.lines, ...part } }));
  const csv = () =>
    [
      "frequency (Hz),level",
      ...peaks.map((p) => `${p.frequencyHz.toFixed(3)},${p.level.toFixed(3)}`),
    ]
      .join("\n")
      .replace("level", `level (${unit})`);
  return (
    <div data-testid="lines-table">
      <Group gap="sm" mb={2}>
        <SegmentedControl
          size="xs"
          aria-label="Order of lines"
          data={[
            { value: "level", label: "by level" },
            { value: "frequency", label: "by frequency" },
          ]}
          value={order}
          onChange={setOrder}
        />
        <span className={classes.sentence}>
          from{" "}
          <QuantityField
            label="Threshold"
            unit="dBm"
            value={lines.threshold ?? Number.NaN}
            words={{ auto: Number.POSITIVE_INFINITY, "": Number.POSITIVE_INFINITY }}
            format={(v) => (Number.isFinite(v) ? `${v} ${unit}` : "12 dB above the noise")}
            next={(v, up) => (Number.isFinite(v) ? v : -60) + (up ? 5 : -5)}
            onCommit={(v) => set({ threshold: Number.isFinite(v) ? v : null })}
          />
          , excursion{" "}
          <QuantityField
            label="Excursion"
            unit="dB"
            value={lines.excursionDb ?? 6}
            format={(v) => `${v} dB`}
            next={(v, up) => Math.max(1, v + (up ? 1 : -1))}
            onCommit={(excursionDb) => set({ excursionDb })}
          />
        </span>
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => download("lines.csv", csv(), "text/csv")}
        >
          CSV
        </Button>
      </Group>
      <Table fz="sm" verticalSpacing={1} horizontalSpacing={6} highlightOnHover>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Line</Table.Th>
            <Table.Th>Frequency</Table.Th>
            <Table.Th>Level ({unit})</Table.Th>
            <Table.Th>Below first (dB)</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody className="figures">
          {ranked.map((p) => (
            <Table.Tr
              key={p.rank}
              style={{ cursor: "pointer" }}
              onClick={() => props.onMark(p.frequencyHz)}
            >
              <Table.Td>{p.rank}</Table.Td>
              <Table.Td style={{ whiteSpace: "nowrap" }}>{formatHertz(p.frequencyHz, 10)}</Table.Td>
              <Table.Td>{signed(p.level, 2)}</Table.Td>
              <Table.Td>{signed(p.level - top, 2)}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </div>
  );
}
