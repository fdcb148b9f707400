import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { api, type Run, type ViewPlan } from "../../api/client";
import { valuesOf } from "../../api/frames";
import { useFrame } from "../../api/live";
import { Plot } from "../../components/Plot";
import type { PlotCurve, PlotLimit, PlotTrace } from "../../components/plotTypes";
import { formatHertz, signed, step125 } from "../../components/units";
import { useDrawnBand } from "../../desk/beside";
import { mainOf } from "../../desk/outcomes";
import { type MarkerSet, plotMarkers } from "./markers";
import { PastLooks } from "./pastLooks";
import type { Frame } from "./spectrumFrame";
import { TraceMenu } from "./TraceMenu";
import type { SpectrumModel } from "./useSpectrum";

const FREQUENCY = { quantity: "Frequency", unit: "Hz" };

/** Level of the noise in the resolution bandwidth. */
function noiseOf({ header }: Frame): number {
  const density = header.readings.find((r) => r.id === "noiseDensity")?.value;
  const dbm = (density ?? -150) + 10 * Math.log10(header.enbwHz);
  // The density stays in dBm/Hz whatever the levels are in.
  return dbm + header.referenceLevel - header.settings.referenceLevelDbm;
}

/** Levels from just below the noise to the top of the plot. */
export function levelRange(frame: Frame | null, model: SpectrumModel): [number, number] {
  const top = topOf(frame, model.state?.settings.referenceLevelDbm ?? 0);
  const floor = !frame ? top - 100 : frame.header.linear ? 0 : 10 * Math.round(noiseOf(frame) / 10);
  return [Math.min(floor, top - 20), top];
}

/** Lowest level of the plot: below the noise, moved only when it must. */
function useFloor(frame: Frame | null): number {
  const floor = useRef(-110);
  const unit = useRef("");
  if (frame?.header.linear) {
    return 0;
  }
  if (frame) {
    const noise = noiseOf(frame);
    if (unit.current !== frame.header.unit) {
      unit.current = frame.header.unit;
      floor.current = Math.floor((noise - 12) / 10) * 10;
    }
    if (floor.current > noise - 6 || floor.current < noise - 35) {
      floor.current = Math.floor((noise - 12) / 10) * 10;
    }
  }
  return floor.current;
}

function useOverlays(ids: number[]): PlotTrace[] {
  const [runs, setRuns] = useState<Run[]>([]);
  const key = ids.join(",");
  useEffect(() => {
    let gone = false;
    const wanted = key ? key.split(",") : [];
    Promise.all(wanted.map((id) => api.get<Run>(`/api/runs/${id}`)))
      .then((all) => !gone && setRuns(all))
      .catch(() => !gone && setRuns([]));
    return () => {
      gone = true;
    };
  }, [key]);
  return useMemo(
    () =>
      runs.flatMap((r, i) => {
        const main = mainOf(r.outcome);
        return main && main.axis.step > 0 && main.axis.unit === "Hz" && main.y
          ? {
              label: `${r.summary.name} at ${main.plane}`,
              startHz: main.axis.start,
              stepHz: main.axis.step,
              level: valuesOf(main),
              colour: 1 + (i % 4),
              dash: [6, 3 + i * 3],
            }
          : [];
      }),
    [runs],
  );
}

/** The newest looks, oldest last, as long as they fit the points of the present one. */
function useHistory(frame: Frame | null, count: number): ArrayLike<number>[] {
  const looks = useRef(new PastLooks());
  return frame
    ? looks.current.take(
        frame.level,
        `${frame.header.startHz} ${frame.header.stepHz} ${frame.level.length}`,
        count,
      )
    : [];
}

export interface LivePlotProps {
  model: SpectrumModel;
  markers: MarkerSet;
  overlaid: number[];
  onPlace: (hertz: number) => void;
}

/** The live trace with all that is laid over it. */
export function LivePlot(props: LivePlotProps & { lead?: ReactNode }) {
  const { model, markers } = props;
  const { state } = model;
  const frame = useFrame(model.store);
  const [historyCount, setHistoryCount] = useState(0);
  const [foreign, setForeign] = useState<PlotCurve[]>([]);
  const overlays = useOverlays(props.overlaid);
  const history = useHistory(frame, historyCount);
  const floor = useFloor(frame);
  const header = frame?.header;
  const traces = useMemo<PlotTrace[]>(() => {
    if (!frame) {
      return overlays;
    }
    const h = frame.header;
    const grid = { startHz: h.startHz, stepHz: h.stepHz };
    const own = h.rows.length - (h.settings.view.second ? 1 : 0);
    const rows = h.rows.map((label, i) => ({
      ...grid,
      label: i < own ? `${i + 1}: ${label}` : label,
      level: frame.rows[i],
      colour: 1 + (i % 5),
      width: 1.1,
      removable: true,
    }));
    const rbw = formatHertz(Number(h.rbwHz.toPrecision(3)));
    const main = {
      ...grid,
      label: `${traceName(state?.phase)}, RBW ${rbw}, ${h.window}, ${h.detector}`,
      level: frame.level,
      colour: 0,
    };
    return [main, ...rows, ...overlays];
  }, [frame, overlays, state?.phase]);
  const settings = header?.settings ?? state?.settings;
  const centre = settings?.centreHz ?? 0;
  const half = (settings?.spanHz ?? 1) / 2;
  const top = topOf(frame, settings?.referenceLevelDbm ?? 0);
  const unit = header?.unit ?? state?.facts.levelUnit ?? "dBm";
  const across = [centre - half, centre + half];
  const pair: PlotCurve[] = (markers.levels ?? []).map((level) => ({
    label: "",
    x: across,
    y: [level, level],
    colour: 5,
  }));
  const drawn = useDrawnBand(FREQUENCY);
  const remove = (trace: number) => model.changeView((now) => without(now, trace - 1));
  return (
    <Plot
      lead={props.lead}
      title="Spectrum"
      traces={traces}
      history={history}
      curves={[...(header?.curves ?? []), ...pair, ...foreign]}
      spoiled={header?.spoiled}
      xRange={[across[0], across[1]]}
      yRange={[header?.linear ? 0 : Math.min(floor, top - 20), top]}
      yLabel={`Level (${unit})${header ? ` at ${header.plane}` : ""}`}
      yUnit={unit}
      markers={frame ? plotMarkers(frame, markers) : []}
      limits={limitsOf(frame)}
      onZoom={(a, b) => model.change({ centreHz: (a + b) / 2, spanHz: b - a })}
      onZoomBack={model.back}
      onPlace={props.onPlace}
      band={drawn?.band ?? undefined}
      onBand={drawn && ((low, high) => drawn.draw([low, high]))}
      onRemove={remove}
      onRemoveCurve={(label) => setForeign(foreign.filter((c) => c.label !== label))}
      actions={
        <TraceMenu
          model={model}
          history={historyCount}
          onHistory={setHistoryCount}
          onForeign={(curve) => setForeign([...foreign, curve])}
        />
      }
      empty={frame ? undefined : emptyWords(model)}
    />
  );
}

/** The view without one trace: math on what is taken away goes with it, what lies behind moves up. */
function without(view: ViewPlan, gone: number): Partial<ViewPlan> {
  if (gone >= view.traces.length) {
    return { second: null };
  }
  const left = view.traces.filter(
    (r, i) =>
      i !== gone && !((r.mode === "RATIO" || r.mode === "REST") && (r.a === gone || r.b === gone)),
  );
  const moved = (i: number) => (i > gone ? i - 1 : i);
  return { traces: left.map((r) => ({ ...r, a: moved(r.a), b: moved(r.b) })) };
}

/** Upper edge of the plot: the reference level, or what fits if the unit is not of decibels. */
function topOf(frame: Frame | null, referenceDbm: number): number {
  const h = frame?.header;
  if (!frame || !h) {
    return referenceDbm + 5;
  }
  if (!h.linear) {
    const second = h.settings.view.second;
    const over = second ? second.referenceLevelDbm - h.settings.referenceLevelDbm : 0;
    return (h.unit === "dBFS" ? 0 : h.referenceLevel + Math.max(0, over)) + 5;
  }
  let highest = h.peaks[0]?.level ?? 0;
  for (const level of [frame.level, ...frame.rows]) {
    for (let i = 0; i < level.length; i++) {
      highest = Math.max(highest, level[i]);
    }
  }
  // Steps of 1, 2, 5, so that the axis does not breathe.
  return step125(highest * 1.05, true);
}

/** Limits that are one level across the whole plot. */
function limitsOf(frame: Frame | null): PlotLimit[] {
  const limits: PlotLimit[] = [];
  for (const r of frame?.header.readings ?? []) {
    if (r.verdict !== "NONE" && r.unit === frame?.header.unit) {
      if (r.upper !== null) {
        limits.push({ label: `highest ${signed(r.upper)} ${r.unit}`, level: r.upper });
      }
      if (r.lower !== null) {
        limits.push({ label: `lowest ${signed(r.lower)} ${r.unit}`, level: r.lower, below: true });
      }
    }
  }
  return limits;
}

function traceName(phase: string | undefined): string {
  return phase === "RUNNING" ? "live" : phase === "STILL" ? "recording" : "last trace, not live";
}

function emptyWords(model: SpectrumModel): string {
  const phase = model.state?.phase;
  if (!model.state) {
    return "No receiver is known. Add one at the Bench, or open a recording.";
  }
  if (phase === "IDLE" || phase === "HELD") {
    return "Nothing measured yet. Press space or Start.";
  }
  if (phase === "REFUSED") {
    return "Not started: see what the Levels and Settings steps say.";
  }
  return phase === "LOST" ? "Waiting for the receiver." : "Waiting for the first trace ...";
}
