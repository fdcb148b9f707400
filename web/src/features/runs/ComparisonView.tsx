import { Alert, Button, Group, Table, Text, Title } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api, type Comparison, type Run } from "../../api/client";
import { go } from "../../app/router";
import { formatHertz, signed } from "../../components/units";
import { alike, mainOf } from "../../desk/outcomes";
import { type Drawn, SeriesPlot, useZooms } from "../../desk/SeriesPlot";
import classes from "./RunsPage.module.css";

const ARROW: Record<string, string> = { up: "\u2191", down: "\u2193", "": "" };
const SHAPE: Record<string, string> = {
  ONLY_FIRST: "\u25C6",
  ONLY_SECOND: "\u25C6",
  BOTH: "\u25CB",
  BOTH_LEVEL_MOVED: "\u25D0",
};

/** Two runs: both traces, their difference, whose lines are whose, and what changed. */
export function ComparisonView({ first, second }: { first: number; second: number }) {
  const { data, error } = useQuery({
    queryKey: ["compare", first, second],
    queryFn: async () => {
      const [comparison, a, b] = await Promise.all([
        api.get<Comparison>(`/api/runs/compare?first=${first}&second=${second}`),
        api.get<Run>(`/api/runs/${first}`),
        api.get<Run>(`/api/runs/${second}`),
      ]);
      return { comparison, a, b };
    },
  });
  if (error) {
    return <Alert color="red">{error.message}</Alert>;
  }
  return data ? <Loaded {...data} /> : <Text>Comparing ...</Text>;
}

function Loaded({ comparison, a, b }: { comparison: Comparison; a: Run; b: Run }) {
  const zooms = useZooms();
  const [mainA, mainB] = [mainOf(a.outcome), mainOf(b.outcome)];
  const drawn: Drawn[] = [];
  if (mainA) {
    drawn.push({ series: mainA, label: `A: ${a.summary.name}`, colour: 0 });
  }
  if (mainB && (!mainA || alike(mainA, mainB))) {
    drawn.push({ series: mainB, label: `B: ${b.summary.name}`, colour: 1, dash: [6, 3] });
  }
  const difference = comparison.difference
    .slice(0, 1)
    .map((series) => ({ series, label: "B minus A", colour: 2 }));
  const unit = mainA?.unit ?? "";
  return (
    <>
      <Group justify="space-between">
        <Title order={4}>
          <span className={classes.letter}>A</span>
          {a.summary.name} and <span className={classes.letter}>B</span>
          {b.summary.name}
        </Title>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => go(`/runs?first=${b.summary.id}&second=${a.summary.id}`)}
        >
          Swap A and B
        </Button>
      </Group>
      {comparison.difference.length === 0 && (
        <Alert color="yellow" p={8}>
          There is no difference: the runs share no stretch of one axis in one unit.
        </Alert>
      )}
      <div className={classes.plots}>
        <SeriesPlot
          title={`${a.summary.name} and ${b.summary.name}`}
          drawn={drawn}
          zooms={zooms}
          yLabel={`${mainA?.quantity ?? ""} (${unit})`}
        />
        <SeriesPlot
          title={`difference of ${b.summary.name} and ${a.summary.name}`}
          drawn={difference}
          zooms={zooms}
          yLabel={`B minus A (${difference[0]?.series.unit ?? ""})`}
        />
      </div>
      <Group align="flex-start" grow wrap="nowrap">
        <div>
          <Title order={5}>Lines</Title>
          <Table fz="sm" verticalSpacing={3} data-testid="lines">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Frequency</Table.Th>
                <Table.Th>A ({unit})</Table.Th>
                <Table.Th>B ({unit})</Table.Th>
                <Table.Th>Whose</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {comparison.lines.map((l) => (
                <Table.Tr key={l.frequencyHz}>
                  <Table.Td className="figures" style={{ whiteSpace: "nowrap" }}>
                    {formatHertz(l.frequencyHz, 8)}
                  </Table.Td>
                  <Table.Td className="figures">{signed(l.firstLevel)}</Table.Td>
                  <Table.Td className="figures">{signed(l.secondLevel)}</Table.Td>
                  <Table.Td>
                    {SHAPE[l.presence]} {l.words}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {comparison.lines.length === 0 && <Text fz="sm">No line stands above the noise.</Text>}
        </div>
        <div>
          <Title order={5}>What changed</Title>
          <Table fz="sm" verticalSpacing={3} data-testid="changes">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>What</Table.Th>
                <Table.Th>A</Table.Th>
                <Table.Th>B</Table.Th>
                <Table.Th>Way</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {comparison.changes.map((c) => (
                <Table.Tr key={`${c.group} ${c.what}`}>
                  <Table.Td>
                    {c.what}{" "}
                    <Text span fz="xs" c="dimmed">
                      {c.group}
                    </Text>
                  </Table.Td>
                  <Table.Td className="figures">{c.before || "\u2014"}</Table.Td>
                  <Table.Td className="figures">{c.after || "\u2014"}</Table.Td>
                  <Table.Td>{ARROW[c.direction]}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {comparison.changes.length === 0 && <Text fz="sm">Nothing but the noise.</Text>}
        </div>
      </Group>
    </>
  );
}
