import { Table } from "@mantine/core";
import { Plot } from "../../components/Plot";
import { formatLevel } from "../../components/units";
import desk from "../../desk/Desk.module.css";
import { TileFrame } from "../../desk/TileGrid";
import { axisFor } from "./panes";
import { type NetworkModel, useShown } from "./useNetworks";

/** The reflection over distance with the gate and the list of faults. */
export function TimeTile({ model }: { model: NetworkModel }) {
  const { time } = model.setting;
  const networks = useShown(model).filter((n) => n.time);
  const first = networks[0]?.time;
  if (!first) {
    return (
      <TileFrame label="Distance">
        <p className={desk.said}>
          {model.wrong || model.networks[0]?.notes[0] || "no response yet"}
        </p>
      </TileFrame>
    );
  }
  const far = Math.min(
    first.rangeMetres * 0.875,
    Math.max(...first.faults.map((f) => f.metres), 1) * 1.35,
  );
  const near = -0.04 * far;
  const curves = networks.map((n, k) => {
    const x: number[] = [];
    const y: number[] = [];
    for (let i = 0; i < (n.time?.metres.length ?? 0); i++) {
      const m = n.time?.metres[i] ?? 0;
      if (m >= near && m <= far) {
        x.push(m);
        y.push(n.time?.value[i] ?? 0);
      }
    }
    return { label: n.name, x, y, colour: k % 5 };
  });
  return (
    <TileFrame
      label="Distance"
      head={
        <span>
          reflection over distance; two faults nearer than{" "}
          <span className="figures">{formatLevel(first.resolutionMetres, "m")}</span> are one,
          repeats after <span className="figures">{formatLevel(first.rangeMetres, "m")}</span>
        </span>
      }
    >
      <div className={desk.plotOverTable}>
        <Plot
          title="Reflection over distance"
          traces={[]}
          curves={curves}
          xName="Distance"
          xUnit="m"
          xRange={[near, far]}
          yRange={axisFor(
            curves.flatMap((c) => c.y),
            time.mode !== "BAND_PASS",
          )}
          yLabel={`S${time.row}${time.row} reflection`}
          yUnit=""
          markers={first.faults
            .filter((f) => f.metres <= far)
            .map((f, i) => ({
              label: String(i + 1),
              hertz: f.metres,
              level: time.mode === "STEP" ? 0 : f.reflection,
            }))}
          spoiled={
            time.gated
              ? [
                  { fromHz: near, toHz: time.fromMetres, why: "outside the gate" },
                  { fromHz: time.toMetres, toHz: far, why: "outside the gate" },
                ]
              : undefined
          }
        />
        <div className={desk.scroll}>
          <Table fz="sm" verticalSpacing={2} data-testid="faults" style={{ whiteSpace: "nowrap" }}>
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Fault</Table.Th>
                <Table.Th>Distance</Table.Th>
                <Table.Th>Reflection</Table.Th>
                <Table.Th>Alone it would be</Table.Th>
                <Table.Th>Kind</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody className="figures">
              {first.faults.map((f, i) => (
                <Table.Tr key={f.metres}>
                  <Table.Td>{i + 1}</Table.Td>
                  <Table.Td>{f.metres.toFixed(2)} m</Table.Td>
                  <Table.Td>{f.reflection.toFixed(4)}</Table.Td>
                  <Table.Td>{f.ohm === null ? "\u2014" : `${f.ohm.toFixed(1)} \u03A9`}</Table.Td>
                  <Table.Td style={{ fontFamily: "inherit" }}>{f.kind}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </div>
      </div>
    </TileFrame>
  );
}
