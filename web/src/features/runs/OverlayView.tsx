import { Alert, Table, Text, Title } from "@mantine/core";
import { useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type Run } from "../../api/client";
import { Plot } from "../../components/Plot";
import { VERDICT_SHAPE } from "../../components/verdicts";
import { formatValue } from "../spectrum/Readings";
import classes from "./RunsPage.module.css";
import { usePlotRange } from "./usePlotRange";

/** Any number of runs over one another, with their readings side by side. */
export function OverlayView({ ids }: { ids: number[] }) {
  const answers = useQueries({
    queries: ids.map((id) => ({
      queryKey: ["run", id],
      queryFn: () => api.get<Run>(`/api/runs/${id}`),
    })),
  });
  const failed = answers.find((a) => a.error);
  if (failed) {
    return <Alert color="red">{(failed.error as Error).message}</Alert>;
  }
  const runs = answers.map((a) => a.data).filter((r): r is Run => r !== undefined);
  return runs.length === ids.length ? <Loaded runs={runs} /> : <Text>Reading the runs ...</Text>;
}

function Loaded({ runs }: { runs: Run[] }) {
  const key = runs.map((r) => r.id).join(",");
  // biome-ignore lint/correctness/useExhaustiveDependencies: kept runs never change
  const traces = useMemo(
    () =>
      runs.map((r, i) => ({
        ...r.trace,
        label: r.name,
        colour: i % 6,
        dash: i < 6 ? undefined : [6, 3],
      })),
    [key],
  );
  const range = usePlotRange(traces);
  const units = new Set(runs.map((r) => r.trace.unit));
  const readings = [...new Set(runs.flatMap((r) => r.readings.map((x) => x.id)))];
  const label = (id: string) =>
    runs.flatMap((r) => r.readings).find((x) => x.id === id)?.label ?? id;
  return (
    <>
      <Title order={4}>{runs.length} runs over one another</Title>
      {units.size > 1 && (
        <Alert color="yellow" p={8}>
          Some of these runs are in dBm and others in dBFS: their levels do not belong together.
        </Alert>
      )}
      <div className={classes.single}>
        <Plot
          title="Runs over one another"
          traces={traces}
          {...range}
          yLabel={`Level (${[...units].join(", ")})`}
          yUnit={runs[0].trace.unit}
        />
      </div>
      <Table fz="sm" verticalSpacing={3} data-testid="overlay-readings">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Reading</Table.Th>
            {runs.map((r) => (
              <Table.Th key={r.id}>{r.name}</Table.Th>
            ))}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {readings.map((id) => (
            <Table.Tr key={id}>
              <Table.Td>{label(id)}</Table.Td>
              {runs.map((run) => {
                const r = run.readings.find((x) => x.id === id);
                return (
                  <Table.Td key={run.id} className="figures">
                    {r
                      ? `${formatValue(r)} ${r.unit} ${r.verdict === "NONE" ? "" : VERDICT_SHAPE[r.verdict]}`
                      : "\u2014"}
                  </Table.Td>
                );
              })}
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </>
  );
}
