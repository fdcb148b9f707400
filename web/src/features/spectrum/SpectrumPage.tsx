import { Alert, Button, Group, Text } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { api, type Job, type Recording, type Run, thisWindow } from "../../api/client";
import type { Frame } from "../../api/live";
import { useCommands } from "../../app/commands";
import { useKeys } from "../../app/useKeys";
import { Plot } from "../../components/Plot";
import type { PlotLimit, PlotTrace } from "../../components/plotTypes";
import { formatHertz, parseQuantity, signed, step125 } from "../../components/units";
import { useInstruments } from "../bench/BenchPage";
import { PathStrip } from "../path/PathStrip";
import { RunTape } from "../runs/RunTape";
import { highest, type MarkerSet, NO_MARKERS, nextLine, plotMarkers, readMarker } from "./markers";
import { OpenRecording } from "./OpenRecording";
import { Readings } from "./Readings";
import classes from "./SpectrumPage.module.css";
import { DETECTORS, Steps, WINDOWS } from "./Steps";
import { type SpectrumModel, useSpectrum } from "./useSpectrum";

export function SpectrumPage({ job }: { job: Job }) {
  const queries = useQueryClient();
  const { data: instruments = [] } = useInstruments();
  const { data: recordings = [] } = useQuery({
    queryKey: ["recordings"],
    queryFn: () => api.get<Recording[]>("/api/recordings"),
  });
  const [chosen, setChosen] = useState<string | null>(sessionStorage.getItem("rovnik-source"));
  const [opening, setOpening] = useState(false);
  const [markers, setMarkers] = useState<MarkerSet>(NO_MARKERS);
  const [overlaid, setOverlaid] = useState<number[]>([]);

  const receivers = instruments.filter((i) => i.kind === "IQ_RECEIVER");
  const sources = [
    ...receivers.map((i) => ({ value: `i${i.id}`, label: i.name })),
    ...recordings.map((r) => ({ value: `r${r.id}`, label: `recording ${r.name}` })),
  ];
  const port = job.path.elements[job.path.elements.length - 1]?.instrumentId;
  const first = receivers.find((i) => i.id === port) ?? receivers[0];
  const source = sources.find((s) => s.value === chosen)?.value ?? (first ? `i${first.id}` : null);
  const choose = (s: string) => {
    sessionStorage.setItem("rovnik-source", s);
    setChosen(s);
    setMarkers(NO_MARKERS);
  };

  const model = useSpectrum(job, source);
  const { frame, state } = model;
  const plane = useRef(job.path.readingPlane);
  const moving = useRef(0);
  if (moving.current === 0) {
    // While a move is on its way, an older answer must not turn it back.
    plane.current = job.path.readingPlane;
  }
  const movePlane = async (wanted: number) => {
    if (wanted < 0 || wanted > job.path.elements.length - 2) {
      return;
    }
    // Shown at once, so that the next key press builds on it.
    plane.current = wanted;
    moving.current++;
    queries.cancelQueries({ queryKey: ["jobs"] });
    queries.setQueryData<Job[]>(["jobs"], (jobs) =>
      jobs?.map((j) => (j.id === job.id ? { ...j, path: { ...j.path, readingPlane: wanted } } : j)),
    );
    await model.inOrder(async () => {
      try {
        await api.put(`/api/jobs/${job.id}/reading-plane`, { plane: wanted });
      } finally {
        moving.current--;
      }
      if (moving.current === 0) {
        await queries.invalidateQueries({ queryKey: ["jobs"] });
      }
      return undefined;
    });
  };

  const mark = () => frame && setMarkers({ ...markers, main: highest(frame) });
  const next = () => frame && setMarkers({ ...markers, main: nextLine(frame, markers.main) });
  const delta = () => {
    const main = frame && readMarker(frame, markers.main ?? highest(frame));
    if (main && frame) {
      const reference = { hertz: main.hertz, level: main.level };
      setMarkers({ main: nextLine(frame, { hertz: main.hertz, follows: true }), reference });
    }
  };
  const centre = () => {
    const main = frame && readMarker(frame, markers.main ?? highest(frame));
    if (frame && main) {
      // A centre that reads well: to the decade of the RBW, far finer than the span.
      const step = 10 ** Math.floor(Math.log10(frame.header.rbwHz));
      model.change({ centreHz: Math.round(main.hertz / step) * step });
    }
  };
  const toggle = () => (state?.phase === "RUNNING" ? model.hold() : model.start());
  const span = (up: boolean) =>
    state && model.change((s) => ({ spanHz: Math.min(step125(s.spanHz, up), state.widestSpanHz) }));

  useKeys({
    " ": toggle,
    m: mark,
    n: next,
    d: delta,
    c: centre,
    b: model.back,
    k: () => model.keep(),
    "-": () => span(false),
    "+": () => span(true),
    "=": () => span(true),
    "[": () => movePlane(plane.current - 1),
    "]": () => movePlane(plane.current + 1),
  });
  useSpectrumCommands(model, {
    mark,
    next,
    delta,
    centre,
    toggle,
    clear: () => {
      setMarkers(NO_MARKERS);
      setOverlaid([]);
    },
    open: () => setOpening(true),
  });

  return (
    <div className={classes.page}>
      <div className={classes.path}>
        <PathStrip job={job} plan={model.plan} instruments={instruments} onPlane={movePlane} />
      </div>
      <div className={classes.notice}>
        <Notice model={model} />
      </div>
      <aside className={classes.steps} aria-label="Steps">
        <Steps
          job={job}
          model={model}
          sources={sources}
          source={source}
          instrument={instruments.find((i) => `i${i.id}` === source)}
          onSource={choose}
          onOpenRecording={() => setOpening(true)}
        />
      </aside>
      <div className={classes.plot}>
        <LivePlot model={model} markers={markers} overlaid={overlaid} />
      </div>
      <aside className={classes.readings} aria-label="Readings">
        <Readings
          frame={frame}
          markers={markers}
          live={state?.phase === "RUNNING" || state?.phase === "STILL"}
        />
      </aside>
      <div className={classes.tape}>
        <RunTape job={job} overlaid={overlaid} onOverlay={setOverlaid} stats={model.stats} />
      </div>
      {opening && (
        <OpenRecording
          onClose={() => setOpening(false)}
          onOpened={(s) => {
            choose(s);
            setOpening(false);
          }}
        />
      )}
    </div>
  );
}

/** What stands in the way, over the whole width, with the next thing to do. */
function Notice({ model }: { model: SpectrumModel }) {
  const { state, problem, connected } = model;
  const other = state?.holder && state.holder !== thisWindow.id && state.holder !== "script";
  if (!connected && state) {
    return (
      <Alert color="red" p={6} radius={0}>
        The connection to Rovnik's server broke; trying again. What is drawn is the last that came.
      </Alert>
    );
  }
  if (state?.phase === "LOST") {
    return (
      <Alert color="red" p={6} radius={0}>
        {state.sourceName} is lost: {state.message} The last trace stays; measuring goes on by
        itself when it is back.
      </Alert>
    );
  }
  if (other) {
    return (
      <Alert color="yellow" p={6} radius={0}>
        <Group gap="sm">
          <Text fz="sm">
            {state.sourceName} is held by {state.holderName}. You watch the same frames
            {problem?.field === "holder" ? "; settings stay with it" : ""}.
          </Text>
          <Button size="compact-xs" onClick={() => model.takeOver()}>
            Take it over
          </Button>
        </Group>
      </Alert>
    );
  }
  const text = problem?.message || (state?.phase === "REFUSED" ? state.message : "");
  if (text) {
    return (
      <Alert
        color="red"
        p={6}
        radius={0}
        withCloseButton={Boolean(problem)}
        onClose={() => model.setProblem(null)}
      >
        {text}
      </Alert>
    );
  }
  return null;
}

function useSpectrumCommands(
  model: SpectrumModel,
  actions: Record<
    "mark" | "next" | "delta" | "centre" | "toggle" | "clear" | "open",
    () => unknown
  >,
) {
  const set = (
    name: string,
    hint: string,
    unit: string,
    key: string,
    words?: Record<string, number>,
  ) => ({
    name,
    argument: unit ? `<${unit}>` : "<number>",
    hint,
    run: (text: string) => {
      const value = words?.[text.toLowerCase()] ?? parseQuantity(text, unit);
      return value === null
        ? `"${text}" is not a value for ${name}.`
        : model.change({ [key]: value });
    },
  });
  const pick = (name: string, hint: string, key: string, choices: Record<string, string>) => ({
    name,
    argument: "<name>",
    hint,
    run: (text: string) => {
      const found = Object.entries(choices).find(([, label]) =>
        label.toLowerCase().startsWith(text.toLowerCase()),
      );
      return found && text
        ? model.change({ [key]: found[0] })
        : `Choose one of ${Object.values(choices).join(", ")}.`;
    },
  });
  const act = (name: string, hint: string, run: () => unknown) => ({
    name,
    argument: "",
    hint,
    run: () => {
      run();
      return "";
    },
  });
  const edge = (name: "start" | "stop") => ({
    name: `${name} at`,
    argument: "<Hz>",
    hint: `${name} frequency`,
    run: (text: string) => {
      const value = parseQuantity(text, "Hz");
      const s = model.state?.settings;
      if (value === null || !s) {
        return `"${text}" is not a frequency.`;
      }
      const low = name === "start" ? value : s.centreHz - s.spanHz / 2;
      const high = name === "stop" ? value : s.centreHz + s.spanHz / 2;
      return model.change({ centreHz: (low + high) / 2, spanHz: high - low });
    },
  });
  useCommands([
    set("centre", "centre frequency", "Hz", "centreHz"),
    set("span", "width shown", "Hz", "spanHz"),
    edge("start"),
    edge("stop"),
    set("rbw", "resolution bandwidth, or auto", "Hz", "rbwHz", { auto: 0 }),
    set("reference", "highest level expected", "dBm", "referenceLevelDbm"),
    set("average", "number of averages", "", "averages"),
    set("channel", "width of channel power", "Hz", "channelWidthHz"),
    pick("window", "window function", "window", WINDOWS),
    pick("detector", "how averages are formed", "detector", DETECTORS),
    {
      name: "keep",
      argument: "<name>",
      hint: "keep a run",
      run: (name: string) => model.keep(name),
    },
    act("start or hold", "start, hold, resume", actions.toggle),
    act("marker", "on the highest peak", actions.mark),
    act("next line", "marker to the next lower peak", actions.next),
    act("delta", "delta from the marker", actions.delta),
    act("centre on line", "centre on the marker or highest peak", actions.centre),
    act("back", "framing before", model.back),
    act("clear", "take markers and overlays away", actions.clear),
    act("open recording", "a SigMF pair", actions.open),
  ]);
}

/** Lowest level of the plot: below the noise, moved only when it must. */
function useFloor(frame: Frame | null): number {
  const floor = useRef(-110);
  if (frame) {
    const density = frame.header.readings.find((r) => r.id === "noiseDensity")?.value;
    const noise = (density ?? -150) + 10 * Math.log10(frame.header.enbwHz);
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
      runs.map((r, i) => ({
        label: `${r.name} at ${r.trace.plane}`,
        startHz: r.trace.startHz,
        stepHz: r.trace.stepHz,
        level: r.trace.level,
        colour: 1 + (i % 4),
        dash: [6, 3 + i * 3],
      })),
    [runs],
  );
}

function LivePlot(props: { model: SpectrumModel; markers: MarkerSet; overlaid: number[] }) {
  const { model, markers } = props;
  const { frame, state } = model;
  const overlays = useOverlays(props.overlaid);
  const floor = useFloor(frame);
  const header = frame?.header;
  const traces = useMemo<PlotTrace[]>(
    () =>
      frame
        ? [
            {
              label: `${traceName(state?.phase)}, RBW ${formatHertz(Number(frame.header.rbwHz.toPrecision(3)))}, ${WINDOWS[frame.header.settings.window]}, ${DETECTORS[frame.header.settings.detector]}`,
              startHz: frame.header.startHz,
              stepHz: frame.header.stepHz,
              level: frame.level,
              colour: 0,
            },
            ...overlays,
          ]
        : overlays,
    [frame, overlays, state?.phase],
  );
  const settings = header?.settings ?? state?.settings;
  const centre = settings?.centreHz ?? 0;
  const half = (settings?.spanHz ?? 1) / 2;
  const top = (header?.unit === "dBFS" ? 0 : (settings?.referenceLevelDbm ?? 0)) + 5;
  const limits: PlotLimit[] = [];
  for (const r of header?.readings ?? []) {
    if (r.verdict !== "NONE" && r.unit === header?.unit) {
      if (r.upper !== null) {
        limits.push({ label: `highest ${signed(r.upper)} ${r.unit}`, level: r.upper });
      }
      if (r.lower !== null) {
        limits.push({ label: `lowest ${signed(r.lower)} ${r.unit}`, level: r.lower, below: true });
      }
    }
  }
  const unit = header?.unit ?? state?.levelUnit ?? "dBm";
  return (
    <Plot
      title="Spectrum"
      traces={traces}
      xRange={[centre - half, centre + half]}
      yRange={[Math.min(floor, top - 20), top]}
      yLabel={`Level (${unit})${header ? ` at ${header.plane}` : ""}`}
      yUnit={unit}
      markers={frame ? plotMarkers(frame, markers) : []}
      limits={limits}
      onZoom={(a, b) => model.change({ centreHz: (a + b) / 2, spanHz: b - a })}
      onZoomBack={model.back}
      empty={frame ? undefined : emptyWords(model)}
    />
  );
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
