import { Alert } from "@mantine/core";
import { useState } from "react";
import type { Job, Tiles } from "../../api/client";
import { useStats } from "../../api/live";
import { useKeys } from "../../app/useKeys";
import { later } from "../../components/later";
import { OutcomeTile } from "../../desk/catalogue";
import { Desk } from "../../desk/Desk";
import { Notice } from "../../desk/Notice";
import { ReadingColumn } from "../../desk/ReadingColumn";
import { TileGrid } from "../../desk/TileGrid";
import { useTiles } from "../../desk/tiles";
import { useFoundView } from "../../desk/useFoundView";
import { useInstruments } from "../../desk/useInstruments";
import { usePlaneMove } from "../../desk/usePlaneMove";
import { useSources } from "../../desk/useSources";
import { PathStrip } from "../path/PathStrip";
import { RunTape } from "../runs/RunTape";
import { generatorOf } from "../waveforms/SignalStep";
import { Steps } from "./Steps";
import { useModulation } from "./useModulation";
import { useModulationCommands } from "./useModulationCommands";

const FindingView = later(async () => (await import("../../desk/FindingView")).FindingView);

const OpenRecording = later(async () => (await import("../spectrum/OpenRecording")).OpenRecording);

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 4,
  tiles: [
    { what: "points", view: "points" },
    { what: "table:causes", view: "table" },
    { what: "eyeI", view: "matrix" },
    { what: "symbols", view: "symbols" },
    { what: "error", view: "curve" },
    { what: "errorSpectrum", view: "curve" },
  ],
};

/** Carriers with data, of receivers and recordings. */
export function ModulationPage({ job }: { job: Job | undefined }) {
  const { data: instruments = [] } = useInstruments();
  const [opening, setOpening] = useState(false);
  const [overlaid, setOverlaid] = useState<number[]>([]);
  const { sources, source, choose } = useSources(job, instruments, (i) => i.kind === "IQ_RECEIVER");
  const model = useModulation(job, source);
  const { frame, state } = model;
  const stats = useStats(model.store);
  const desk = useTiles("modulation", FIRST_TILES);
  const plane = usePlaneMove(job, model.inOrder);
  const found = useFoundView(model);
  const toggle = () =>
    state?.guided ? model.stopGuided() : state?.phase === "RUNNING" ? model.hold() : model.start();
  useKeys({
    " ": toggle,
    k: () => model.keep(),
    "[": () => plane.moveBy(-1),
    "]": () => plane.moveBy(1),
  });
  useModulationCommands(model, { toggle, open: () => setOpening(true) });

  const live = state?.phase === "RUNNING" || state?.phase === "STILL";
  const refused = frame?.view.refused ?? "";
  return (
    <Desk
      title="Modulation"
      path={
        job && (
          <PathStrip job={job} plan={model.plan} instruments={instruments} onPlane={plane.moveTo} />
        )
      }
      notice={
        <>
          <Notice model={model} />
          {refused && live && (
            <Alert color="yellow" p={6} radius={0}>
              {refused}
              {frame?.outcome.series.length ? " What is drawn is of an earlier record." : ""}
            </Alert>
          )}
        </>
      }
      steps={
        <Steps
          job={job}
          model={model}
          desk={desk}
          sources={sources}
          source={source}
          instrument={instruments.find((i) => `i${i.id}` === source)}
          generator={generatorOf(job, instruments)}
          onLastFinding={found.again}
          onSource={choose}
          onOpenRecording={() => setOpening(true)}
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
          note={frame && !live ? "of the last record, not live" : undefined}
        />
      }
      tape={job && <RunTape job={job} overlaid={overlaid} onOverlay={setOverlaid} stats={stats} />}
    >
      {opening && (
        <OpenRecording
          onClose={() => setOpening(false)}
          onOpened={(s) => {
            choose(s);
            setOpening(false);
          }}
        />
      )}
    </Desk>
  );
}
