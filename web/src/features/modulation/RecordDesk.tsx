import { Alert } from "@mantine/core";
import { type ReactNode, useState } from "react";
import type { CarrierDescription, Finding, Job, Outcome } from "../../api/client";
import { useStats } from "../../api/live";
import { later } from "../../components/later";
import { type Beside, BesideContext } from "../../desk/beside";
import { Desk } from "../../desk/Desk";
import { Notice } from "../../desk/Notice";
import { OutcomeTile } from "../../desk/OutcomeTile";
import { type Placing, PlacingContext } from "../../desk/placing";
import { ReadingColumn } from "../../desk/ReadingColumn";
import { TileGrid } from "../../desk/TileGrid";
import { useBeside } from "../../desk/useBeside";
import type { useDeskParts } from "../../desk/useDeskParts";
import { PathStrip } from "../path/PathStrip";
import { RunTape } from "../runs/RunTape";
import { feedOf, generatorOf } from "../waveforms/SignalStep";
import { Steps } from "./Steps";
import type { useRecordSources } from "./useRecordSources";
import type { RecordsModel } from "./useRecords";

const FindingView = later(async () => (await import("../../desk/FindingView")).FindingView);

const OpenRecording = later(async () => (await import("../spectrum/OpenRecording")).OpenRecording);

/** What tiles of a desk share. */
function Around(props: { beside: Beside; placing: Placing | undefined; children: ReactNode }) {
  return (
    <BesideContext.Provider value={props.beside}>
      <PlacingContext.Provider value={props.placing}>{props.children}</PlacingContext.Provider>
    </BesideContext.Provider>
  );
}

/** The desk of whatever is measured of single records. */
export function RecordDesk<S extends object>(props: {
  job: Job | undefined;
  title: string;
  kind: string;
  /** What else can be measured of the same record. */
  kinds?: ReactNode;
  model: RecordsModel<S>;
  hookUp: ReturnType<typeof useRecordSources>;
  parts: ReturnType<typeof useDeskParts>;
  sentence: ReactNode;
  guided?: (onLastFinding?: () => void) => ReactNode;
  /** An answer to what a carrier is, which can be taken over. */
  what?: {
    told: Finding | undefined;
    close: () => void;
    takeOver: (o: Outcome) => Promise<void>;
  };
  /** What a click on a place of an axis does. */
  onPlace?: Placing;
  /** What a band that is drawn in a spectrum does, where it is a setting. */
  onBand?: (band: [number, number]) => unknown;
  /** What a new waveform begins with. */
  carrier: CarrierDescription | undefined;
}) {
  const { job, model } = props;
  const { instruments, sources, source, choose } = props.hookUp;
  const { desk, plane, found, opening, setOpening } = props.parts;
  const { what } = props;
  const shown = what?.told ?? found.shown;
  const close = what?.told ? what.close : found.close;
  const takeOver = what?.takeOver;
  const [overlaid, setOverlaid] = useState<number[]>([]);
  const { frame, state } = model;
  const stats = useStats(model.store);
  const beside = useBeside(model.url, frame, { take: props.onBand });
  const live = state?.phase === "RUNNING" || state?.phase === "STILL";
  const refused = frame?.view.refused ?? "";
  return (
    <Desk
      title={props.title}
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
          kind={props.kind}
          kinds={props.kinds}
          model={model}
          desk={desk}
          sources={sources}
          source={source}
          instrument={instruments.find((i) => `i${i.id}` === source)}
          generator={generatorOf(job, instruments) ?? feedOf(job, instruments)}
          carrier={props.carrier}
          sentence={props.sentence}
          guided={props.guided?.(found.again)}
          onSource={choose}
          onOpenRecording={() => setOpening(true)}
        />
      }
      tiles={
        shown ? (
          <FindingView
            finding={shown}
            onKeep={what?.told ? undefined : () => model.keep("", "finding/keep")}
            onTakeOver={
              takeOver && shown.outcome.kind === "what-is-it"
                ? () => takeOver(shown.outcome).then(close)
                : undefined
            }
            onClose={close}
          />
        ) : (
          <Around beside={beside} placing={props.onPlace}>
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
          </Around>
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
