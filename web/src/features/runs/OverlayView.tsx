import { Alert, Table, Text, Title } from "@mantine/core";
import { useQueries } from "@tanstack/react-query";
import { api, type Run } from "../../api/client";
import { VERDICT_SHAPE } from "../../components/verdicts";
import { alike, mainOf } from "../../desk/outcomes";
import { formatValue } from "../../desk/ReadingColumn";
import { type Drawn, SeriesPlot, useZooms } from "../../desk/SeriesPlot";
import classes from "./RunsPage.module.css";

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
  const zooms = useZooms();
  const first = mainOf(runs[0].outcome);
  const drawn: Drawn[] = runs.flatMap((r, i) => {
    const series = mainOf(r.outcome);
    return series && first && alike(series, first)
      ? [{ series, label: r.summary.name, colour: i % 6, dash: i < 6 ? undefined : [6, 3] }]
      : [];
  });
  const all = runs.flatMap((r) => r.outcome.readings);
  const readings = [...new Set(all.map((x) => x.id))];
  const label = (id: string) => all.find((x) => x.id === id)?.label ?? id;
  return (
    <>
      <Title order={4}>{runs.length} runs over one another</Title>
      {drawn.length < runs.length && (
        <Alert color="yellow" p={8}>
          Some of these runs have another unit or another axis than the first: they are not drawn.
        </Alert>
      )}
      <div className={classes.single}>
        <SeriesPlot
          title="Runs over one another"
          drawn={drawn}
          zooms={zooms}
          yLabel={`${first?.quantity ?? ""} (${first?.unit ?? ""})`}
        />
      </div>
      <Table fz="sm" verticalSpacing={3} data-testid="overlay-readings">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Reading</Table.Th>
            {runs.map((r) => (
              <Table.Th key={r.summary.id}>{r.summary.name}</Table.Th>
            ))}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {readings.map((id) => (
            <Table.Tr key={id}>
              <Table.Td>{label(id)}</Table.Td>
              {runs.map((run) => {
                const r = run.outcome.readings.find((x) => x.id === id);
                return (
                  <Table.Td key={run.summary.id} className="figures">
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
