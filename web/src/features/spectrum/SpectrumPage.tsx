import { useState } from "react";
import type { Job } from "../../api/client";
import { useStats } from "../../api/live";
import { useKeys } from "../../app/useKeys";
import { later } from "../../components/later";
import { step125 } from "../../components/units";
import { BesideContext } from "../../desk/beside";
import { Desk } from "../../desk/Desk";
import classes from "../../desk/Desk.module.css";
import { Notice } from "../../desk/Notice";
import { useTiles } from "../../desk/tiles";
import { useBeside } from "../../desk/useBeside";
import { useFoundView } from "../../desk/useFoundView";
import { useInstruments } from "../../desk/useInstruments";
import { usePlaneMove } from "../../desk/usePlaneMove";
import { useSources } from "../../desk/useSources";
import { PathStrip } from "../path/PathStrip";
import { RunTape } from "../runs/RunTape";
import { MarkersPanel } from "./MarkersPanel";
import { highest, type MarkerSet, NO_MARKERS, nextLine, readMarker } from "./markers";
import { Readings } from "./Readings";
import { FIRST_TILES, SpectrumTiles, showsTable } from "./SpectrumTiles";
import { Steps } from "./Steps";
import type { Frame } from "./spectrumFrame";
import { useSpectrum } from "./useSpectrum";
import { useSpectrumCommands } from "./useSpectrumCommands";

const LowerPane = later(async () => (await import("./LowerPane")).LowerPane);

const FindingView = later(async () => (await import("../../desk/FindingView")).FindingView);

const OpenRecording = later(async () => (await import("./OpenRecording")).OpenRecording);

const Adviser = later(async () => (await import("./Adviser")).Adviser);

/** A pair of level lines to begin with: at a level, and well below it. */
function levelPair(level: number, linear: boolean): [number, number] {
  return linear ? [level, level / 10] : [Math.round(level), Math.round(level) - 20];
}

function spanOf(frame: Frame | null): [number, number] | undefined {
  const s = frame?.header.settings;
  return s && [s.centreHz - s.spanHz / 2, s.centreHz + s.spanHz / 2];
}

/** Spectra of receivers and recordings; without a job a file can be looked at. */
export function SpectrumPage({ job }: { job: Job | undefined }) {
  const { data: instruments = [] } = useInstruments();
  const [opening, setOpening] = useState(false);
  const [markers, setMarkers] = useState<MarkerSet>(NO_MARKERS);
  const [overlaid, setOverlaid] = useState<number[]>([]);
  const [lines, setLines] = useState(false);
  const [asking, setAsking] = useState(false);

  const { sources, source, choose } = useSources(
    job,
    instruments,
    (i) => i.kind === "IQ_RECEIVER" || i.kind === "SWEPT_ANALYZER",
  );
  const model = useSpectrum(job, source);
  const { frame, state } = model;
  const stats = useStats(model.store);
  const desk = useTiles("spectrum", FIRST_TILES);
  const found = useFoundView(model);
  const plane = usePlaneMove(job, model.inOrder);
  const beside = useBeside(model.url, frame, { span: spanOf(frame) });

  const put = (part: Partial<MarkerSet>) => setMarkers((m) => ({ ...m, ...part }));
  // Keys act on the newest frame, not on the one whose numbers are being read.
  const newest = () => model.store?.frame.get() ?? null;
  const mark = () => {
    const now = newest();
    return now && put({ main: highest(now) });
  };
  const next = () => {
    const now = newest();
    return now && put({ main: nextLine(now, markers.main) });
  };
  const place = (hertz: number) => put({ main: { hertz, follows: false } });
  const pin = () => markers.main && put({ more: [...markers.more, markers.main] });
  const main = frame && readMarker(frame, markers.main ?? highest(frame));
  const delta = () => {
    const now = newest();
    const from = now && readMarker(now, markers.main ?? highest(now));
    if (now && from) {
      const reference = { hertz: from.hertz, level: from.level };
      put({ main: nextLine(now, { hertz: from.hertz, follows: true }), reference });
    }
  };
  const centre = () => {
    const now = newest();
    const at = now && readMarker(now, markers.main ?? highest(now));
    if (now && at) {
      // A centre that reads well: to the decade of the RBW, far finer than the span.
      const step = 10 ** Math.floor(Math.log10(now.header.rbwHz));
      model.change({ centreHz: Math.round(at.hertz / step) * step });
    }
  };
  const markerSpan = () => {
    if (main && markers.reference) {
      const width = Math.abs(main.hertz - markers.reference.hertz);
      model.change({
        centreHz: (main.hertz + markers.reference.hertz) / 2,
        spanHz: Math.max(width * 1.2, 10 * (frame?.header.rbwHz ?? 1)),
      });
    }
  };
  const levels = () =>
    put({
      levels: markers.levels ? null : levelPair(main?.level ?? 0, frame?.header.linear ?? false),
    });
  const toggle = () =>
    state?.guided ? model.stopGuided() : state?.phase === "RUNNING" ? model.hold() : model.start();
  const span = (up: boolean) =>
    state &&
    model.change((s) => ({ spanHz: Math.min(step125(s.spanHz, up), state.facts.widestSpanHz) }));

  useKeys({
    " ": toggle,
    m: mark,
    n: next,
    d: delta,
    c: centre,
    p: pin,
    b: model.back,
    f: model.forward,
    a: () => model.guide({ kind: "auto-frame" }),
    w: () => model.guide({ kind: "whose-line", stepDb: 10 }),
    l: () => setLines(!lines),
    k: () => model.keep(),
    "-": () => span(false),
    "+": () => span(true),
    "=": () => span(true),
    "[": () => plane.moveBy(-1),
    "]": () => plane.moveBy(1),
  });
  useSpectrumCommands(model, {
    mark,
    next,
    delta,
    pin,
    levels,
    centre,
    markerSpan,
    lines: () => setLines(!lines),
    adviser: () => setAsking(true),
    toggle,
    clear: () => {
      setMarkers(NO_MARKERS);
      setOverlaid([]);
    },
    open: () => setOpening(true),
  });

  const tables = !showsTable(desk.tiles) && (lines || (frame?.header.tables.length ?? 0) > 0);
  const follow = (hertz: number) => put({ main: { hertz, follows: true } });
  return (
    <Desk
      title="Spectrum"
      path={
        job && (
          <PathStrip job={job} plan={model.plan} instruments={instruments} onPlane={plane.moveTo} />
        )
      }
      notice={<Notice model={model} />}
      steps={
        <Steps
          job={job}
          model={model}
          desk={desk}
          sources={sources}
          source={source}
          instrument={instruments.find((i) => `i${i.id}` === source)}
          onSource={(s) => {
            choose(s);
            setMarkers(NO_MARKERS);
          }}
          onOpenRecording={() => setOpening(true)}
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
          <BesideContext.Provider value={beside}>
            <SpectrumTiles
              desk={desk}
              frame={frame}
              model={model}
              markers={markers}
              overlaid={overlaid}
              onPlace={place}
              onMark={follow}
            />
            {frame && tables && (
              <LowerPane
                frame={frame}
                model={model}
                lines={lines}
                onMark={follow}
                onClose={() => setLines(false)}
              />
            )}
          </BesideContext.Provider>
        )
      }
      readings={
        <>
          <Readings
            frame={frame}
            live={state?.phase === "RUNNING" || state?.phase === "STILL"}
            model={model}
            markerHz={main?.hertz ?? null}
          />
          <div className={classes.rest}>
            <MarkersPanel frame={frame} markers={markers} onChange={setMarkers} />
          </div>
        </>
      }
      tape={job && <RunTape job={job} overlaid={overlaid} onOverlay={setOverlaid} stats={stats} />}
    >
      {asking && (
        <Adviser
          model={model}
          spacingHz={
            main && markers.reference ? Math.abs(main.hertz - markers.reference.hertz) : null
          }
          differenceDb={main && markers.reference ? main.level - markers.reference.level : null}
          onClose={() => setAsking(false)}
        />
      )}
      {opening && (
        <OpenRecording
          onClose={() => setOpening(false)}
          onOpened={(s) => {
            choose(s);
            setMarkers(NO_MARKERS);
            setOpening(false);
          }}
        />
      )}
    </Desk>
  );
}
