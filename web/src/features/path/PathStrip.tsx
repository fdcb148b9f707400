import { Button, Text } from "@mantine/core";
import { useState } from "react";
import type { Instrument, Job, LevelPlan, PathElement } from "../../api/client";
import { later } from "../../components/later";
import { signed } from "../../components/units";
import classes from "./PathStrip.module.css";

const PathEditor = later(async () => (await import("./PathEditor")).PathEditor);

interface Props {
  job: Job;
  plan: LevelPlan | undefined;
  instruments: Instrument[];
  onPlane: (plane: number) => void;
  /** Where numbers are read if it is no plane of the path, as a part between its two connectors. */
  readAt?: string;
}

/** Elements, the level at each plane, headroom, and the reading plane. */
export function PathStrip({ job, plan, instruments, onPlane, readAt }: Props) {
  const [editing, setEditing] = useState<number | null>(null);
  const { elements, readingPlane } = job.path;
  const blocked = (i: number) =>
    plan?.findings.some((f) => f.element === i && f.severity !== "NARROW") ?? false;
  const worst = plan?.worstHeadroomDb;
  return (
    <section className={classes.strip} aria-label="Signal path">
      {elements.map((e, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an element is known by its place in the path
        <div key={i} style={{ display: "flex" }}>
          <button
            type="button"
            className={`${classes.element} ${blocked(i) ? classes.bad : ""}`}
            title="Edit the path"
            onClick={() => setEditing(i)}
          >
            <div className={classes.name}>{e.name}</div>
            <div className={`figures ${classes.detail}`}>
              {detail(
                e,
                plan?.headroomDb[i] ?? null,
                plan?.planes[i]?.levelDbm,
                plan?.planes[i - 1]?.levelDbm,
              )}
            </div>
          </button>
          {i < elements.length - 1 && (
            <button
              type="button"
              className={`${classes.plane} ${i === readingPlane && !readAt ? classes.reading : ""}`}
              aria-pressed={i === readingPlane && !readAt}
              title={`Read at ${plan?.planes[i]?.name ?? "this plane"}`}
              onClick={() => onPlane(i)}
            >
              <span className={`figures ${classes.level}`}>
                {plan ? signed(plan.planes[i].levelDbm) : "..."}
              </span>
            </button>
          )}
        </div>
      ))}
      <div className={classes.summary}>
        {plan?.blocked ? (
          <Text fw={600} c="var(--fail)" data-testid="headroom">
            {"\u2717"} levels: not safe
          </Text>
        ) : (
          <Text fw={600} data-testid="headroom">
            {worst == null ? "no limits known" : `\u2713 headroom ${worst.toFixed(1)} dB`}
          </Text>
        )}
        <div>
          read at{" "}
          <b style={{ borderBottom: "3px solid var(--plane)" }}>
            {readAt ?? plan?.planes[readingPlane]?.name ?? ""}
          </b>
        </div>
      </div>
      <Button
        variant="subtle"
        size="compact-xs"
        ml={10}
        style={{ alignSelf: "center" }}
        onClick={() => setEditing(0)}
      >
        Edit
      </Button>
      {editing !== null && (
        <PathEditor
          job={job}
          first={editing}
          instruments={instruments}
          onClose={() => setEditing(null)}
        />
      )}
    </section>
  );
}

/** What an element does; a source that is set elsewhere sends what the plan says. */
function detail(e: PathElement, headroom: number | null, sent?: number, got?: number): string {
  if (e.kind === "SOURCE") {
    return `${signed(sent ?? e.outputLevelDbm ?? 0)} dBm`;
  }
  if (e.kind === "PORT") {
    return headroom === null ? "no limit" : `${headroom.toFixed(1)} dB left`;
  }
  if (e.gainKind === "number") {
    return `${signed(e.gainDb ?? 0)} dB`;
  }
  // A gain over frequency: what it is where the source sends.
  return sent === undefined || got === undefined ? "gain table" : `${signed(sent - got)} dB here`;
}
