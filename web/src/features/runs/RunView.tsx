import { Alert, Button, Group, SimpleGrid, Table, Text, Textarea, TextInput } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { api, type Outcome, type Run, type Tiles } from "../../api/client";
import { go } from "../../app/router";
import { ConfirmButton } from "../../components/ConfirmButton";
import { later } from "../../components/later";
import { ResultTableView } from "../../components/ResultTableView";
import { signed, withMinus } from "../../components/units";
import { VERDICT_SHAPE } from "../../components/verdicts";
import { viewsOf } from "../../desk/catalogue";
import { ALL, OutcomeTile, whatsOf } from "../../desk/OutcomeTile";
import { factWords, mainOf, tablesOf } from "../../desk/outcomes";
import { formatValue } from "../../desk/ReadingColumn";
import { TileGrid } from "../../desk/TileGrid";
import { TilesSentence } from "../../desk/TilesSentence";
import { useTiles } from "../../desk/tiles";
import classes from "./RunsPage.module.css";

const RunBoard = later(async () => (await import("./RunBoard")).RunBoard);

/** All traces first where they are curves, then each thing by itself in the way that suits it best. */
function firstTiles(o: Outcome): Tiles {
  const main = mainOf(o);
  const curves = main !== undefined && viewsOf(main)[0] === "curve";
  const whats = whatsOf(o).filter((w) => curves || w.value !== ALL);
  const tile = (i: number) => {
    const what = whats[Math.min(i, whats.length - 1)]?.value ?? "readings";
    const series = o.series.find((s) => s.id === what);
    return { what, view: (series && viewsOf(series)[0]) ?? "curve" };
  };
  return { count: 1, tiles: [0, 1, 2, 3, 4, 5].map(tile) };
}

/** A file to take away, or a page of its own. */
function FileLink(props: { href: string; title?: string; page?: boolean; children: ReactNode }) {
  return (
    <Button
      size="compact-sm"
      component="a"
      variant="default"
      href={props.href}
      title={props.title}
      {...(props.page ? { target: "_blank" } : { download: true })}
    >
      {props.children}
    </Button>
  );
}

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
  const { summary, outcome } = run;
  const { networkId, recordingId } = summary.attachments;
  const [name, setName] = useState(summary.name);
  const [note, setNote] = useState(summary.note);
  const [wrong, setWrong] = useState("");
  const main = mainOf(outcome);
  const desk = useTiles(`run-${outcome.kind}`, firstTiles(outcome));

  const tiles = (
    <TileGrid>
      {desk.tiles.tiles.slice(0, desk.tiles.count).map((tile, place) => (
        <OutcomeTile
          // biome-ignore lint/suspicious/noArrayIndexKey: tiles are known by their place
          key={place}
          place={place}
          tile={tile}
          look={{ outcome, name: summary.name }}
          onChange={(part) => desk.setTile(place, part)}
        />
      ))}
    </TileGrid>
  );

  const describe = async () => {
    if (name === summary.name && note === summary.note) {
      return;
    }
    try {
      // Only what changed: two edits on their way at once must not undo each other.
      await api.patch(`/api/runs/${summary.id}`, {
        name: name === summary.name ? null : name,
        note: note === summary.note ? null : note,
      });
      setWrong("");
      await queries.invalidateQueries({ queryKey: ["runs", jobId] });
      await queries.invalidateQueries({ queryKey: ["run", summary.id] });
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
      </Group>
      <Group gap="xs">
        <FileLink href={`/api/runs/${summary.id}/report.html`} page>
          Report
        </FileLink>
        {main && <FileLink href={`/api/runs/${summary.id}/csv?series=${main.id}`}>CSV</FileLink>}
        <FileLink
          href={`/api/runs/${summary.id}/export`}
          title="The whole run with its files, to read it in elsewhere"
        >
          Whole run
        </FileLink>
        {networkId !== null && (
          <FileLink href={`/api/networks/${networkId}/touchstone?version=1`}>Touchstone</FileLink>
        )}
        {recordingId !== null && (
          <>
            <FileLink href={`/api/recordings/${recordingId}/sigmf-meta`}>SigMF meta</FileLink>
            <FileLink href={`/api/recordings/${recordingId}/sigmf-data`}>SigMF data</FileLink>
          </>
        )}
        {recordingId !== null && summary.kind === "audio" && (
          <FileLink href={`/api/runs/${summary.id}/sound`}>WAV file</FileLink>
        )}
        <ConfirmButton
          size="compact-sm"
          question="Remove it for good"
          onConfirm={async () => {
            await api.remove(`/api/runs/${summary.id}`);
            await queries.invalidateQueries({ queryKey: ["runs", jobId] });
            go("/runs");
          }}
        >
          Remove
        </ConfirmButton>
      </Group>
      <Text fz="sm">
        Kept {new Date(summary.keptAt).toLocaleString()}
        {summary.keptBy && ` by ${summary.keptBy}`} from {run.sourceName}
        {run.identity && ` (${run.identity})`}: {run.words.map(factWords).join(", ")}.
        {run.overrideReason && <b> Levels overridden: {run.overrideReason}</b>}
      </Text>
      {outcome.summary && <Text fz="sm">{withMinus(outcome.summary)}</Text>}
      {outcome.marks.map((m) => (
        <Text key={m} fz="sm" fw={600}>
          {"\u26A0"} {m}
        </Text>
      ))}
      <TilesSentence desk={desk} />
      <div className={desk.tiles.count > 2 ? classes.many : classes.single}>
        {outcome.series.some((s) => s.axis.quantity === "Place") ? (
          <RunBoard jobId={jobId}>{tiles}</RunBoard>
        ) : (
          tiles
        )}
      </div>
      {tablesOf(outcome).map((t) => (
        <ResultTableView key={t.id} table={t} />
      ))}
      <SimpleGrid cols={2} style={{ alignItems: "start" }}>
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
            {outcome.readings.map((r) => (
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
              <Table.Th>Value</Table.Th>
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
