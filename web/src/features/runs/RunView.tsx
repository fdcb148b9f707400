import { Alert, Button, Group, SimpleGrid, Table, Text, Textarea, TextInput } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, type Run } from "../../api/client";
import { go } from "../../app/router";
import { ConfirmButton } from "../../components/ConfirmButton";
import { Plot } from "../../components/Plot";
import { ResultTableView } from "../../components/ResultTableView";
import { formatHertz, signed } from "../../components/units";
import { VERDICT_SHAPE } from "../../components/verdicts";
import { plotCurves } from "../spectrum/FindingView";
import { formatValue } from "../spectrum/Readings";
import { DETECTORS, WINDOWS } from "../spectrum/Steps";
import classes from "./RunsPage.module.css";
import { usePlotRange } from "./usePlotRange";

/** One kept run, exactly as it was. */
export function RunView({ id, jobId }: { id: number; jobId: number }) {
  const { data: run, error } = useQuery({
    queryKey: ["run", id],
    queryFn: () => api.get<Run>(`/api/runs/${id}`),
  });
  if (error) {
    return <Alert color="red">{error.message}</Alert>;
  }
  return run ? <Loaded run={run} jobId={jobId} /> : <Text>Reading the run ...</Text>;
}

function Loaded({ run, jobId }: { run: Run; jobId: number }) {
  const queries = useQueryClient();
  const [name, setName] = useState(run.name);
  const [note, setNote] = useState(run.note);
  const [wrong, setWrong] = useState("");
  const traces = useMemo(
    () => [
      { label: run.name, colour: 0, ...run.trace },
      ...run.rows.map((r, i) => ({ ...r.trace, label: r.label, colour: 1 + (i % 5), width: 1.1 })),
    ],
    [run],
  );
  const range = usePlotRange(traces);
  const s = run.settings;

  const describe = async () => {
    if (name === run.name && note === run.note) {
      return;
    }
    try {
      // Only what changed: two edits on their way at once must not undo each other.
      await api.patch(`/api/runs/${run.id}`, {
        name: name === run.name ? null : name,
        note: note === run.note ? null : note,
      });
      setWrong("");
      await queries.invalidateQueries({ queryKey: ["runs", jobId] });
      await queries.invalidateQueries({ queryKey: ["run", run.id] });
    } catch (e) {
      setWrong((e as Error).message);
    }
  };

  return (
    <>
      <Group align="flex-end" wrap="nowrap">
        <TextInput
          label="Name"
          w={280}
          value={name}
          error={wrong}
          onChange={(e) => setName(e.currentTarget.value)}
          onBlur={describe}
        />
        <Textarea
          label="Note"
          style={{ flex: 1 }}
          autosize
          minRows={1}
          value={note}
          onChange={(e) => setNote(e.currentTarget.value)}
          onBlur={describe}
        />
        <Button
          component="a"
          variant="default"
          href={`/api/runs/${run.id}/report.html`}
          target="_blank"
        >
          Report
        </Button>
        <Button component="a" variant="default" href={`/api/runs/${run.id}/trace.csv`} download>
          Trace CSV
        </Button>
        {run.networkId !== null && (
          <Button
            component="a"
            variant="default"
            href={`/api/networks/${run.networkId}/touchstone?version=1`}
            download
          >
            Touchstone
          </Button>
        )}
        {run.recordingId !== null && (
          <>
            <Button
              component="a"
              variant="default"
              href={`/api/recordings/${run.recordingId}/sigmf-meta`}
              download
            >
              SigMF meta
            </Button>
            <Button
              component="a"
              variant="default"
              href={`/api/recordings/${run.recordingId}/sigmf-data`}
              download
            >
              SigMF data
            </Button>
          </>
        )}
        <ConfirmButton
          question="Remove it for good"
          onConfirm={async () => {
            await api.remove(`/api/runs/${run.id}`);
            await queries.invalidateQueries({ queryKey: ["runs", jobId] });
            go("/runs");
          }}
        >
          Remove
        </ConfirmButton>
      </Group>
      <Text fz="sm">
        Kept {new Date(run.keptAt).toLocaleString()} from {run.sourceName} ({run.identity}).{" "}
        {run.networkId !== null ? (
          `${run.trace.detector} and more; the sweep is among the conditions.`
        ) : (
          <>
            Centre {formatHertz(s.centreHz)}, span {formatHertz(s.spanHz)}, RBW{" "}
            {formatHertz(Number(run.trace.rbwHz.toPrecision(3)))}, {WINDOWS[s.window]},{" "}
            {DETECTORS[s.detector]}, {run.trace.segments} averages.
          </>
        )}
        {run.overrideReason && <b> Levels overridden: {run.overrideReason}</b>}
      </Text>
      <div className={classes.single}>
        <Plot
          title={run.name}
          traces={traces}
          {...range}
          yLabel={`Level (${run.trace.unit}) at ${run.trace.plane}`}
          yUnit={run.trace.unit}
          curves={plotCurves(
            run.extras.limitLines.filter((c) => c.xUnit === "Hz" && c.yUnit === run.trace.unit),
          )}
        />
      </div>
      {run.extras.tables.map((t) => (
        <ResultTableView key={t.id} table={t} />
      ))}
      <SimpleGrid cols={2}>
        <Table fz="sm" verticalSpacing={3} captionSide="top">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Reading</Table.Th>
              <Table.Th>Value</Table.Th>
              <Table.Th>± (k = 2)</Table.Th>
              <Table.Th>Verdict</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {run.readings.map((r) => (
              <Table.Tr key={r.id}>
                <Table.Td>{r.label}</Table.Td>
                <Table.Td className="figures">
                  {formatValue(r)} {r.unit} {r.marks.join(", ")}
                </Table.Td>
                <Table.Td className="figures">
                  {r.uncertainty === null ? "not known" : Number(r.uncertainty.toPrecision(2))}
                </Table.Td>
                <Table.Td>
                  {VERDICT_SHAPE[r.verdict]} {r.verdictText}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        <Table fz="sm" verticalSpacing={3}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Path and conditions</Table.Th>
              <Table.Th />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {run.path.elements.map((e, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a kept path never changes
              <Table.Tr key={i}>
                <Table.Td>{e.name}</Table.Td>
                <Table.Td className="figures">
                  {e.outputLevelDbm !== null
                    ? `${signed(e.outputLevelDbm)} dBm expected`
                    : e.gainKind !== "number"
                      ? `gain over frequency ± ${e.toleranceDb} dB`
                      : `${signed(e.gainDb ?? 0)} dB ± ${e.toleranceDb}`}
                </Table.Td>
              </Table.Tr>
            ))}
            {Object.entries(run.conditions).map(([what, value]) => (
              <Table.Tr key={what}>
                <Table.Td>{what}</Table.Td>
                <Table.Td className="figures">{value}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </SimpleGrid>
    </>
  );
}
