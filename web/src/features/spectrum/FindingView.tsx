import { Button, Group, Text } from "@mantine/core";
import type { Curve, Finding } from "../../api/client";
import { Plot } from "../../components/Plot";
import type { PlotCurve, PlotMarker } from "../../components/plotTypes";
import { ResultTableView } from "../../components/ResultTableView";
import { ReadingRow } from "./Readings";
import classes from "./SpectrumPage.module.css";
import type { SpectrumModel } from "./useSpectrum";

const NAMES: Record<string, [string, string]> = {
  harmonics: ["Harmonic", ""],
  "drive-sweep": ["Carrier level", "dBm"],
  "phase-noise": ["Offset", "Hz"],
};

/** Curves as the plot draws them: limits apart, colours in turns. */
export function plotCurves(curves: Curve[]): PlotCurve[] {
  let colour = 0;
  return curves.map((c) => {
    const limit = c.id === "limit" || c.id === "mask" || c.id.startsWith("occupied");
    const ranged = c.id.startsWith("range");
    return {
      label: c.label,
      x: c.x,
      y: c.y,
      limit,
      colour: limit || ranged ? 0 : colour++ % 5,
      dots: c.x.length <= 60 && !limit,
    };
  });
}

/** A finding with its picture, tables and readings; it can be kept as a run. */
export function FindingView(props: {
  finding: Finding;
  model: SpectrumModel;
  onClose: () => void;
}) {
  const { finding, model } = props;
  const curves = plotCurves(finding.curves);
  const drawn = curves.filter((c) => !c.limit || finding.kind === "survey");
  const xs = drawn.flatMap((c) => c.x);
  const ys = drawn.flatMap((c) => c.y).filter(Number.isFinite);
  const [xName, xUnit] = NAMES[finding.kind] ?? ["Frequency", "Hz"];
  const yUnit = finding.curves[0]?.yUnit ?? "";
  return (
    <div className={classes.finding} data-testid="finding">
      <Group justify="space-between" wrap="nowrap" align="flex-start">
        <div>
          <Text fw={600}>{finding.title}</Text>
          <Text fz="sm">{finding.summary}</Text>
        </div>
        <Group gap={6} wrap="nowrap">
          <Button size="compact-sm" onClick={() => model.keep("", "finding/keep")}>
            Keep as a run
          </Button>
          <Button size="compact-sm" variant="default" onClick={props.onClose}>
            Back to the live trace
          </Button>
        </Group>
      </Group>
      {xs.length > 0 && (
        <div className={classes.findingPlot}>
          <Plot
            title={finding.title}
            traces={[]}
            curves={curves}
            logarithmic={finding.logarithmic}
            xRange={[min(xs), max(xs)]}
            yRange={[Math.floor(min(ys) / 10) * 10 - 5, Math.ceil((max(ys) + 8) / 10) * 10]}
            xName={xName}
            xUnit={xUnit}
            yLabel={finding.kind === "phase-noise" ? "L(f) (dBc/Hz)" : `Level (${yUnit})`}
            yUnit={yUnit}
            markers={makers(finding)}
          />
        </div>
      )}
      {finding.readings.length > 0 && (
        <div className={classes.findingReadings}>
          {finding.readings.map((r) => (
            <ReadingRow key={r.id} reading={r} />
          ))}
        </div>
      )}
      {finding.tables.map((t) => (
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
function makers(finding: Finding): PlotMarker[] {
  const table = finding.tables.find((t) => t.id === "whose-line");
  return (table?.rows ?? []).map(({ cells: [line, level, maker] }) => ({
    hertz: line.value ?? 0,
    level: level.value ?? 0,
    label: SHORT.find(([start]) => maker.text.startsWith(start))?.[1] ?? "",
  }));
}

const min = (v: number[]) => v.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const max = (v: number[]) => v.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
