import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job, type RunSummary } from "../../api/client";
import type { LiveStats } from "../../api/live";
import { go } from "../../app/router";
import { withMinus } from "../../components/units";
import { VERDICT_SHAPE } from "../../components/verdicts";
import classes from "./RunTape.module.css";

export function useRuns(jobId: number) {
  return useQuery({
    queryKey: ["runs", jobId],
    queryFn: () => api.get<RunSummary[]>(`/api/jobs/${jobId}/runs`),
  });
}

/** A small picture of a trace. */
export function Picture({ levels, height = 28 }: { levels: number[]; height?: number }) {
  const low = Math.min(...levels);
  const high = Math.max(...levels, low + 1);
  const points = levels
    .map((v, i) => `${i},${(((high - v) / (high - low)) * 30 + 1).toFixed(1)}`)
    .join(" ");
  return (
    <svg
      viewBox={`0 0 ${Math.max(1, levels.length - 1)} 32`}
      preserveAspectRatio="none"
      width="100%"
      height={height}
      aria-hidden="true"
    >
      <polyline
        points={points}
        fill="none"
        stroke="var(--trace-0)"
        strokeWidth="1.2"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}

interface Props {
  job: Job;
  overlaid: number[];
  onOverlay: (ids: number[]) => void;
  stats: LiveStats;
}

/** The runs of the job, newest first: click lays one over, shift-click two compares them. */
export function RunTape({ job, overlaid, onOverlay, stats }: Props) {
  const { data } = useRuns(job.id);
  const runs = data ?? [];
  const [first, setFirst] = useState<number | null>(null);
  const click = (id: number, shift: boolean) => {
    if (!shift) {
      onOverlay(
        overlaid.includes(id) ? overlaid.filter((o) => o !== id) : [...overlaid, id].slice(-4),
      );
    } else if (first === null || first === id) {
      setFirst(first === id ? null : id);
    } else {
      go(`/runs?first=${first}&second=${id}`);
    }
  };
  return (
    <section className={classes.tape} aria-label="Run tape">
      <div className={classes.scroll}>
        {data?.length === 0 && (
          <span style={{ alignSelf: "center", color: "var(--ink-soft)" }}>
            No runs yet. Press k to keep what is on the screen, with everything needed to judge it
            later.
          </span>
        )}
        {runs.map((r) => (
          <button
            key={r.id}
            type="button"
            className={classes.run}
            aria-pressed={overlaid.includes(r.id)}
            data-first={first === r.id}
            title="Click: lay over. Shift-click two: compare. Open it under Runs."
            onClick={(e) => click(r.id, e.shiftKey)}
            onDoubleClick={() => go(`/runs?run=${r.id}`)}
          >
            <div className={classes.name}>{r.name}</div>
            <Picture levels={r.picture} />
            <div className={classes.line}>
              <span>
                {new Date(r.keptAt).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })}
              </span>
              <span className="figures">{withMinus(r.headline)}</span>
              <b title={r.verdictText}>{VERDICT_SHAPE[r.verdict]}</b>
            </div>
          </button>
        ))}
      </div>
      <div className={classes.side}>
        <div className="figures" data-testid="stats">
          {stats.framesPerSecond > 0
            ? `${stats.framesPerSecond} frames/s, ${Math.round(stats.latencyMillis)} ms old`
            : "no new frames"}
        </div>
        {first !== null ? (
          <div>shift-click the second run to compare</div>
        ) : (
          <Button
            size="compact-xs"
            variant="default"
            disabled={runs.length < 2}
            onClick={() =>
              overlaid.length >= 2
                ? go(`/runs?first=${overlaid[0]}&second=${overlaid[1]}`)
                : go(`/runs?first=${runs[1].id}&second=${runs[0].id}`)
            }
          >
            Compare {overlaid.length >= 2 ? "the two laid over" : "the newest two"}
          </Button>
        )}
      </div>
    </section>
  );
}
