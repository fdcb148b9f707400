import { Alert } from "@mantine/core";
import { useState } from "react";
import type { Job, Tiles } from "../../api/client";
import { useStats } from "../../api/live";
import { later } from "../../components/later";
import { withMinus } from "../../components/units";
import { Desk } from "../../desk/Desk";
import { Notice } from "../../desk/Notice";
import { OutcomeTile } from "../../desk/OutcomeTile";
import { ReadingColumn } from "../../desk/ReadingColumn";
import { TileGrid } from "../../desk/TileGrid";
import { useDeskParts } from "../../desk/useDeskParts";
import { useInstruments } from "../../desk/useInstruments";
import { useSources } from "../../desk/useSources";
import { PathStrip } from "../path/PathStrip";
import { RunTape } from "../runs/RunTape";
import { generatorOf } from "../waveforms/SignalStep";
import { ReceiverSteps } from "./ReceiverSteps";
import { useLevel } from "./useLevel";
import { useReceiver } from "./useReceiver";
import { useReceiverCommands } from "./useReceiverCommands";
import type { Work } from "./works";

const FindingView = later(async () => (await import("../../desk/FindingView")).FindingView);
const WorkForm = later(async () => (await import("./WorkForm")).WorkForm);

/** Good first tiles of what counts bits, and of what gives audio. */
const FIRST_TILES: Record<string, Tiles> = {
  bits: {
    count: 1,
    tiles: [
      { what: "errorsOverLooks", view: "curve" },
      { what: "errorsOverLooks", view: "values" },
    ],
  },
  audio: {
    count: 2,
    tiles: [
      { what: "sinadOverLooks", view: "curve" },
      { what: "audioSpectrum", view: "curve" },
      { what: "audio", view: "curve" },
      { what: "audioSpectrum", view: "values" },
    ],
  },
};

/** Receivers under test: what they make of what a generator sends them, level by level. */
export function ReceiverPage({ job }: { job: Job | undefined }) {
  const { data: instruments = [] } = useInstruments();
  const { sources, source, choose } = useSources(
    job,
    instruments,
    (i) => i.kind === "TESTED_RECEIVER",
    false,
  );
  const model = useReceiver(job, source);
  const { state, frame } = model;
  const audio = state?.facts.givesAudio && !state.facts.countsBits;
  const kind = audio ? "audio" : "bits";
  const { desk, plane, found, toggle } = useDeskParts(
    job,
    model,
    `receiver-${kind}`,
    FIRST_TILES[kind],
  );
  const level = useLevel(generatorOf(job, instruments), job, model.plan);
  const [work, setWork] = useState<Work | null>(null);
  const [overlaid, setOverlaid] = useState<number[]>([]);
  useReceiverCommands(model, level, { toggle, work: setWork });
  const stats = useStats(model.store);
  const live = state?.phase === "RUNNING";
  return (
    <Desk
      title="Receiver"
      path={
        job && (
          <PathStrip job={job} plan={model.plan} instruments={instruments} onPlane={plane.moveTo} />
        )
      }
      notice={
        <>
          <Notice model={model} />
          {live && frame?.outcome.marks.length ? (
            <Alert color="yellow" p={6} radius={0}>
              {withMinus(frame.outcome.summary)}
            </Alert>
          ) : null}
        </>
      }
      steps={
        <ReceiverSteps
          job={job}
          model={model}
          desk={desk}
          instruments={instruments}
          sources={sources}
          source={source}
          level={level}
          onSource={choose}
          onWork={setWork}
          onLastFinding={found.again}
        />
      }
      tiles={
        found.shown ? (
          <FindingView
            finding={found.shown}
            onKeep={() => model.keep("", "finding/keep")}
            onClose={found.close}
          />
        ) : (
          <TileGrid>
            {desk.tiles.tiles.slice(0, desk.tiles.count).map((tile, place) => (
              <OutcomeTile
                // biome-ignore lint/suspicious/noArrayIndexKey: tiles are known by their place
                key={place}
                place={place}
                tile={tile}
                look={frame}
                onChange={(part) => desk.setTile(place, part)}
              />
            ))}
          </TileGrid>
        )
      }
      readings={
        <ReadingColumn
          readings={frame?.outcome.readings ?? []}
          note={frame && !live ? "of the last look, not live" : undefined}
        />
      }
      tape={job && <RunTape job={job} overlaid={overlaid} onOverlay={setOverlaid} stats={stats} />}
    >
      {work && (
        <WorkForm work={work} model={model} facts={state?.facts} onClose={() => setWork(null)} />
      )}
    </Desk>
  );
}
