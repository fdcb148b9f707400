import { Button, Checkbox, FileButton, Group, Stack, Text, Title } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job, type RunSummary } from "../../api/client";
import { go, useAddress } from "../../app/router";
import { withMinus } from "../../components/units";
import { VERDICT_SHAPE } from "../../components/verdicts";
import { ComparisonView } from "./ComparisonView";
import { OverlayView } from "./OverlayView";
import { RunGrid } from "./RunGrid";
import classes from "./RunsPage.module.css";
import { Picture, useRuns } from "./RunTape";
import { RunView } from "./RunView";

/** All runs of the job; one to read, or two to compare. */
export function RunsPage({ job }: { job: Job }) {
  const { query } = useAddress();
  const { data: runs } = useRuns(job.id);
  const number = (name: string) => Number(query.get(name)) || null;
  const first = number("first");
  const second = number("second");
  const single = number("run") ?? (first === null ? (runs?.[0]?.id ?? null) : null);
  const more = (query.get("more") ?? "").split(",").map(Number).filter(Boolean);
  const grid = query.get("all") !== null;
  const letter = (id: number) =>
    id === first ? "A" : id === second ? "B" : more.includes(id) ? "+" : "";

  const pick = (id: number) => {
    const ticked = [first, second, ...more].filter((t): t is number => t !== null);
    const next = ticked.includes(id) ? ticked.filter((t) => t !== id) : [...ticked, id];
    const [a, b, ...rest] = next;
    go(
      next.length === 0
        ? "/runs"
        : `/runs?first=${a}${b ? `&second=${b}` : ""}${rest.length ? `&more=${rest.join(",")}` : ""}`,
    );
  };

  if (runs?.length === 0) {
    return (
      <Stack align="center" justify="center" h="100%">
        <Title order={1} size="h4">
          Runs
        </Title>
        <Text>This job has no runs yet. Keep one on the Spectrum screen with the key k.</Text>
        <TakeRun job={job} />
      </Stack>
    );
  }
  return (
    <div className={classes.page}>
      <div className={classes.list}>
        <Group justify="space-between" mb={4}>
          <Title order={1} size="h4">
            Runs
          </Title>
          <Button
            size="compact-sm"
            variant={grid ? "filled" : "light"}
            onClick={() => go(grid ? "/runs" : "/runs?all=1")}
          >
            All on one sheet
          </Button>
        </Group>
        <TakeRun job={job} />
        <Text fz="sm" c="dimmed" mb={6}>
          Click one to read it; tick two to compare, or more to lay them over one another.
        </Text>
        {runs?.map((r) => (
          <Group key={r.id} gap={6} wrap="nowrap" align="center">
            <Checkbox
              size="xs"
              aria-label={`Compare ${r.name}`}
              checked={letter(r.id) !== ""}
              onChange={() => pick(r.id)}
            />
            <button
              type="button"
              className={classes.row}
              aria-current={!grid && single === r.id && second === null}
              onClick={() => go(`/runs?run=${r.id}`)}
            >
              <Group justify="space-between" wrap="nowrap">
                <Text fz="sm" fw={600} truncate>
                  {letter(r.id) && <span className={classes.letter}>{letter(r.id)}</span>}
                  {r.name}
                </Text>
                <b title={r.verdictText}>{VERDICT_SHAPE[r.verdict]}</b>
              </Group>
              <Picture levels={r.picture} height={24} />
              <Text fz="xs" c="dimmed" className="figures">
                {new Date(r.keptAt).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}{" "}
                {withMinus(r.headline)}
              </Text>
            </button>
          </Group>
        ))}
      </div>
      <div className={classes.detail}>
        {grid && runs ? (
          <RunGrid runs={runs} />
        ) : first !== null && second !== null && more.length > 0 ? (
          <OverlayView ids={[first, second, ...more]} />
        ) : first !== null && second !== null ? (
          <ComparisonView first={first} second={second} />
        ) : first !== null ? (
          <Text mt="xl" ta="center">
            Tick a second run to compare it with the first.
          </Text>
        ) : (
          single !== null && <RunView key={single} id={single} jobId={job.id} />
        )}
      </div>
    </div>
  );
}

/** Reads a run in that another Rovnik wrote as one file. */
function TakeRun({ job }: { job: Job }) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const take = async (file: File | null) => {
    if (!file) {
      return;
    }
    const form = new FormData();
    form.append("file", file);
    try {
      const run = await api.post<RunSummary>(`/api/jobs/${job.id}/runs`, form);
      setWrong("");
      await queries.invalidateQueries({ queryKey: ["runs", job.id] });
      go(`/runs?run=${run.id}`);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <>
      <FileButton accept=".zip" onChange={take}>
        {(p) => (
          <Button {...p} size="compact-xs" variant="subtle">
            Read a whole run in
          </Button>
        )}
      </FileButton>
      {wrong && (
        <Text fz="sm" c="red">
          {wrong}
        </Text>
      )}
    </>
  );
}
