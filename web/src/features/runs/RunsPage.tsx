import { Checkbox, Group, Stack, Text, Title } from "@mantine/core";
import type { Job } from "../../api/client";
import { go, useAddress } from "../../app/router";
import { ComparisonView } from "./ComparisonView";
import classes from "./RunsPage.module.css";
import { Picture, useRuns, VERDICT_SHAPE } from "./RunTape";
import { RunView } from "./RunView";

/** All runs of the job; one to read, or two to compare. */
export function RunsPage({ job }: { job: Job }) {
  const { query } = useAddress();
  const { data: runs } = useRuns(job.id);
  const number = (name: string) => Number(query.get(name)) || null;
  const first = number("first");
  const second = number("second");
  const single = number("run") ?? (first === null ? (runs?.[0]?.id ?? null) : null);
  const letter = (id: number) => (id === first ? "A" : id === second ? "B" : "");

  const pick = (id: number) => {
    if (first === id) {
      go(second ? `/runs?first=${second}` : "/runs");
    } else if (second === id) {
      go(`/runs?first=${first}`);
    } else {
      go(first === null ? `/runs?first=${id}` : `/runs?first=${first}&second=${id}`);
    }
  };

  if (runs?.length === 0) {
    return (
      <Stack align="center" justify="center" h="100%">
        <Text>This job has no runs yet. Keep one on the Spectrum screen with the key k.</Text>
      </Stack>
    );
  }
  return (
    <div className={classes.page}>
      <div className={classes.list}>
        <Title order={4} mb={4}>
          Runs
        </Title>
        <Text fz="sm" c="dimmed" mb={6}>
          Click one to read it; tick two to compare.
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
              aria-current={single === r.id && second === null}
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
                {r.headline}
              </Text>
            </button>
          </Group>
        ))}
      </div>
      <div className={classes.detail}>
        {first !== null && second !== null ? (
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
