import { Alert, Button, Group, Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { api, type Job, type Outcome, type Tiles, type Watch } from "../../api/client";
import { useCommands } from "../../app/commands";
import { useKeys } from "../../app/useKeys";
import { ConfirmButton } from "../../components/ConfirmButton";
import { axisOf } from "../../components/cursor";
import { later } from "../../components/later";
import { CLOCK } from "../../components/plotTypes";
import { formatMoment, formatSeconds, withMinus } from "../../components/units";
import { Choice } from "../../desk/Choice";
import { Desk } from "../../desk/Desk";
import classes from "../../desk/Desk.module.css";
import { OutcomeTile, whatsOf } from "../../desk/OutcomeTile";
import { dataOf } from "../../desk/outcomes";
import { ZoomsContext } from "../../desk/placing";
import { ReadingColumn, worstReading } from "../../desk/ReadingColumn";
import { useZooms } from "../../desk/SeriesPlot";
import { Step } from "../../desk/Step";
import { TileGrid } from "../../desk/TileGrid";
import { TilesSentence } from "../../desk/TilesSentence";
import { useTiles } from "../../desk/tiles";
import { actCommand } from "../modulation/recordCommands";
import { RunTape } from "../runs/RunTape";
import { queryOf, RANGES, stretchOf, useWatches, useWatchOutcome } from "./watches";

const WatchForm = later(async () => (await import("./WatchForm")).WatchForm);

const NO_FRAMES = { framesPerSecond: 0, latencyMillis: 0, looksPerSecond: 0 };

/** The curves first, one over the other, then what left its limits. */
function firstTiles(o: Outcome): Tiles {
  const data = dataOf(o);
  // Where all rows of a table are watched, their picture says most.
  const curves = [...data.filter((s) => s.rows), ...data.filter((s) => !s.rows)].map((s) => s.id);
  const whats = [...curves.slice(0, 2), "table:events", "table:numbers", "table:gaps"];
  const last = whatsOf(o).at(-1)?.value ?? "readings";
  return {
    count: 2,
    tiles: [0, 1, 2, 3, 4, 5].map((i) => ({ what: whats[i] ?? last, view: "curve" })),
  };
}

interface Props {
  job: Job | undefined;
  /** The choice of what else there is in this area. */
  kinds: ReactNode;
  /** What is typed to come to the others. */
  others: { name: string; hint: string; come: () => void }[];
}

/** Numbers that are followed for hours and days. */
export function WatchDesk({ job, kinds, others }: Props) {
  const { data: watches, error } = useWatches(job?.id);
  const [chosen, setChosen] = useState<number | null>(null);
  const [asking, setAsking] = useState(false);
  const watch = watches?.find((w) => w.id === chosen) ?? watches?.[0];
  useCommands([
    actCommand("new watch", "begin a long watch", () => setAsking(true)),
    ...others.map((o) => actCommand(o.name, o.hint, o.come)),
  ]);
  const choice = (
    <WatchStep
      watches={watches}
      watch={watch}
      onChoose={setChosen}
      onNew={job && watches?.length ? setAsking : undefined}
    />
  );
  const form = asking && job && (
    <WatchForm
      job={job}
      onClose={() => setAsking(false)}
      onBegun={(begun) => {
        setAsking(false);
        setChosen(begun.id);
      }}
    />
  );
  if (!job || !watch) {
    return (
      <Desk
        title="Long watch"
        path={null}
        notice={null}
        steps={
          <>
            <Step title="Settings" state="done">
              {kinds}
            </Step>
            {choice}
          </>
        }
        tiles={
          <div className={classes.said}>
            {job && !watches ? (
              <Text>{error ? error.message : "Reading ..."}</Text>
            ) : (
              <Text>
                {job
                  ? "Nothing is watched for this job yet. A long watch follows numbers of a measurement for hours or days, keeps what was seen when one leaves its limits, and goes on when the server or the instrument was away."
                  : "A long watch belongs to a job: make one with + at the top."}
              </Text>
            )}
            {job && watches && (
              <Button mt="sm" onClick={() => setAsking(true)}>
                New watch ...
              </Button>
            )}
          </div>
        }
        readings={null}
        tape={job && <RunTape job={job} overlaid={[]} onOverlay={() => {}} stats={NO_FRAMES} />}
      >
        {form}
      </Desk>
    );
  }
  return (
    <Watched
      key={watch.id}
      job={job}
      watch={watch}
      steps={
        <>
          <Step title="Settings" state="done">
            {kinds}
          </Step>
          {choice}
        </>
      }
    >
      {form}
    </Watched>
  );
}

/** Which watch, and what it does. */
function WatchStep(props: {
  /** Undefined while they are asked for. */
  watches: Watch[] | undefined;
  watch: Watch | undefined;
  onChoose: (id: number) => void;
  onNew: ((open: boolean) => void) | undefined;
}) {
  const { watch, watches } = props;
  const going = watch?.endedMillis === null;
  return (
    <Step
      title="Watch"
      state={!watch ? "open" : going && watch.standing ? "attention" : "done"}
      aside={
        props.onNew && (
          <Button size="compact-sm" onClick={() => props.onNew?.(true)}>
            New watch ...
          </Button>
        )
      }
    >
      {watch ? (
        <>
          <div className={classes.sentence}>
            <Choice
              label="Watch"
              value={String(watch.id)}
              choices={Object.fromEntries((watches ?? []).map((w) => [String(w.id), w.name]))}
              onChange={(id) => props.onChoose(Number(id))}
            />
          </div>
          <div className={classes.small}>
            {watch.title}; since {formatMoment(watch.beganMillis / 1000)} UTC,{" "}
            {watch.plan.everySeconds > 0
              ? `a point for ${formatSeconds(watch.plan.everySeconds)}`
              : "a point for each look"}
            ;{" "}
            {going
              ? watch.standing
                ? `nothing is seen: ${watch.standing}`
                : "it goes on"
              : `ended ${formatMoment((watch.endedMillis ?? 0) / 1000)} UTC${watch.standing ? `: ${watch.standing}` : ""}`}
          </div>
        </>
      ) : (
        <Text fz="sm">{props.watches ? "none yet" : "reading ..."}</Text>
      )}
    </Step>
  );
}

function Watched(props: { job: Job; watch: Watch; steps: ReactNode; children: ReactNode }) {
  const { job, watch } = props;
  const [range, setRange] = useState("all");
  const zooms = useZooms();
  const stretch = stretchOf(watch, range, zooms.now);
  const { data: outcome, error } = useWatchOutcome(watch, stretch);
  if (!outcome) {
    return (
      <Desk
        title="Long watch"
        path={null}
        notice={
          error && (
            <Alert color="red" p={6} radius={0}>
              {error.message}
            </Alert>
          )
        }
        steps={props.steps}
        tiles={<div className={classes.said}>{error ? "" : "Reading ..."}</div>}
        readings={null}
        tape={null}
      >
        {props.children}
      </Desk>
    );
  }
  return (
    <Drawn
      job={job}
      watch={watch}
      outcome={outcome}
      trouble={error?.message ?? ""}
      query={queryOf(stretch)}
      zooms={zooms}
      range={range}
      onRange={(wanted) => {
        zooms.whole();
        setRange(wanted);
      }}
      steps={props.steps}
    >
      {props.children}
    </Drawn>
  );
}

/** When a number was outside its limit last, in a line; all times are in their table. */
function LastOutside({ outcome }: { outcome: Outcome }) {
  const row = outcome.tables.find((t) => t.id === "events")?.rows[0];
  if (!row) {
    return null;
  }
  const [since, reading, worst, lasted, kept] = row.cells;
  return (
    <div className={classes.small}>
      Last outside: {reading.text}, {worst.text}, since {formatMoment(since.value ?? 0)} UTC{" "}
      {lasted.text === "goes on" ? "and still" : `for ${lasted.text}`}
      {kept.text && `; ${kept.text}`}
    </div>
  );
}

function Drawn(props: {
  job: Job;
  watch: Watch;
  outcome: Outcome;
  trouble: string;
  /** The stretch that is shown, as it is asked for. */
  query: string;
  zooms: ReturnType<typeof useZooms>;
  range: string;
  onRange: (range: string) => void;
  steps: ReactNode;
  children: ReactNode;
}) {
  const { job, watch, outcome, zooms } = props;
  const queries = useQueryClient();
  const desk = useTiles(`watch-${watch.id}`, firstTiles(outcome));
  const [overlaid, setOverlaid] = useState<number[]>([]);
  const [note, setNote] = useState("");
  const [wrong, setWrong] = useState("");
  const going = watch.endedMillis === null;
  const act = async (work: () => Promise<string>) => {
    try {
      setNote(await work());
      setWrong("");
    } catch (e) {
      setWrong((e as Error).message);
    }
    await queries.invalidateQueries({ queryKey: ["watches", job.id] });
    await queries.invalidateQueries({ queryKey: ["watch-outcome", watch.id] });
  };
  const keep = () =>
    act(async () => {
      const run = await api.post<{ name: string }>(`/api/watches/${watch.id}/keep?${props.query}`, {
        name: `${watch.name}, ${zooms.now ? "a stretch" : RANGES[props.range]}`,
      });
      await queries.invalidateQueries({ queryKey: ["runs", job.id] });
      return `Kept as "${run.name}".`;
    });
  const end = () =>
    act(async () => {
      await api.post(`/api/watches/${watch.id}/end`, {});
      return "It has ended; what it saw stays.";
    });
  // What an event kept is a run of the job.
  const kept = outcome.tables
    .find((t) => t.id === "events")
    ?.rows.map((r) => r.cells[4].text)
    .join();
  useEffect(() => {
    if (kept) {
      queries.invalidateQueries({ queryKey: ["runs", job.id] });
    }
  }, [kept, queries, job.id]);
  useKeys({ k: keep });
  useCommands([
    actCommand("keep", "this stretch as a run", keep),
    actCommand("end watch", "it sees nothing more; what it saw stays", end),
    actCommand("whole watch", "out of every zoom", zooms.whole),
  ]);
  const worst = worstReading(outcome.readings);
  return (
    <Desk
      title="Long watch"
      path={null}
      notice={
        props.trouble || wrong || watch.unwritten ? (
          <Alert color="red" p={6} radius={0}>
            {wrong || props.trouble || `Watch: ${watch.unwritten}. Make room on the disk.`}
          </Alert>
        ) : (
          going &&
          watch.standing && (
            <Alert color="yellow" p={6} radius={0}>
              Nothing is seen now: {watch.standing}. The watch goes on when there is something
              again.
            </Alert>
          )
        )
      }
      steps={
        <>
          {props.steps}
          <Step title="Shown" state="done">
            <div className={classes.sentence}>
              {zooms.now ? (
                <>
                  from {formatMoment(zooms.now[0])} to {formatMoment(zooms.now[1])} UTC{" "}
                  <Button size="compact-xs" variant="default" onClick={zooms.whole}>
                    Out of the zoom
                  </Button>
                </>
              ) : (
                <Choice
                  label="Shown"
                  value={props.range}
                  choices={RANGES}
                  onChange={props.onRange}
                />
              )}
            </div>
            <TilesSentence desk={desk} />
            <div className={classes.small}>{withMinus(outcome.summary)}</div>
          </Step>
          <Step
            title="Judge"
            state={worst?.verdict.startsWith("PASS") ? "done" : worst ? "attention" : "open"}
          >
            <Group gap={6}>
              <Button size="compact-sm" onClick={keep}>
                Keep this run
              </Button>
              <Button
                size="compact-sm"
                variant="default"
                component="a"
                href={`/api/watches/${watch.id}/csv?${props.query}`}
                download
              >
                All points (CSV)
              </Button>
              {going && (
                <ConfirmButton size="compact-sm" question="End it for good" onConfirm={end}>
                  End the watch
                </ConfirmButton>
              )}
              <ConfirmButton
                size="compact-sm"
                question="Remove all it saw"
                onConfirm={() =>
                  act(async () => {
                    await api.remove(`/api/watches/${watch.id}`);
                    return "";
                  })
                }
              >
                Remove
              </ConfirmButton>
            </Group>
            <LastOutside outcome={outcome} />
            {note && (
              <Text fz="sm" role="status">
                {note}
              </Text>
            )}
          </Step>
        </>
      }
      tiles={
        <ZoomsContext.Provider value={{ axis: axisOf("Clock", CLOCK), zooms }}>
          <TileGrid>
            {desk.tiles.tiles.slice(0, desk.tiles.count).map((tile, place) => (
              <OutcomeTile
                // biome-ignore lint/suspicious/noArrayIndexKey: tiles are known by their place
                key={place}
                place={place}
                tile={tile}
                look={{ outcome }}
                onChange={(part) => desk.setTile(place, part)}
              />
            ))}
          </TileGrid>
        </ZoomsContext.Provider>
      }
      readings={
        <ReadingColumn
          readings={outcome.readings}
          note={going ? undefined : "of a watch that has ended"}
        />
      }
      tape={<RunTape job={job} overlaid={overlaid} onOverlay={setOverlaid} stats={NO_FRAMES} />}
    >
      {props.children}
    </Desk>
  );
}
