import { Alert, Button, Group, Table, Text, Title } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type Comparison, type Run } from "../../api/client";
import { go } from "../../app/router";
import { Plot } from "../../components/Plot";
import { formatHertz, signed } from "../../components/units";
import classes from "./RunsPage.module.css";
import { usePlotRange } from "./usePlotRange";

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
  const both = useMemo(
    () => [
      { label: `A: ${a.name}`, colour: 0, ...a.trace },
      { label: `B: ${b.name}`, colour: 1, dash: [6, 3], ...b.trace },
    ],
    [a, b],
  );
  const difference = useMemo(
    () => comparison.difference.map((d) => ({ label: "B minus A", colour: 2, ...d })),
    [comparison],
  );
  const range = usePlotRange(both);
  const differenceRange = usePlotRange(difference);
  const unit = a.trace.unit;
  return (
    <>
      <Group justify="space-between">
        <Title order={4}>
          <span className={classes.letter}>A</span>
          {a.name} and <span className={classes.letter}>B</span>
          {b.name}
        </Title>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => go(`/runs?first=${b.id}&second=${a.id}`)}
        >
          Swap A and B
        </Button>
      </Group>
      {comparison.difference.length === 0 && (
        <Alert color="yellow" p={8}>
          There is no difference trace: the runs share no band, or one is in dBm and the other in
          dBFS.
        </Alert>
      )}
      <div className={classes.plots}>
        <Plot
          title={`${a.name} and ${b.name}`}
          traces={both}
          {...range}
          yLabel={`Level (${unit})`}
          yUnit={unit}
        />
        <Plot
          title={`difference of ${b.name} and ${a.name}`}
          traces={difference}
          {...differenceRange}
          xRange={range.xRange}
          onZoom={range.onZoom}
          onZoomBack={range.onZoomBack}
          yLabel="B minus A (dB)"
          yUnit="dB"
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
                <Table.Th />
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
