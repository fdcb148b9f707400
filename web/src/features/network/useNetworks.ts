import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import {
  api,
  type Job,
  type JobNetwork,
  type NetworkSummary,
  type NetworkViewRequest,
  type PortExtension,
  type ShownNetwork,
  type Tiles,
} from "../../api/client";
import { useFrame } from "../../api/live";
import { useTiles } from "../../desk/tiles";
import { useInstruments } from "../../desk/useInstruments";
import { parseElements } from "./asksText";
import { paneOf, type View, viewOf } from "./panes";
import { useAnalyzer } from "./useAnalyzer";

export interface TimeSetting {
  on: boolean;
  row: number;
  mode: "BAND_PASS" | "IMPULSE" | "STEP";
  shape: "SHARP" | "BALANCED" | "CLEAN";
  velocityFactor: number;
  gated: boolean;
  fromMetres: number;
  toMetres: number;
}

export interface NetworkSetting {
  /** The analyzer that is shown first, null for files alone. */
  live: number | null;
  shown: number[];
  smoothing: number;
  apertureHz: number;
  firstPart: number | null;
  lastPart: number | null;
  firstAdded: number | null;
  lastAdded: number | null;
  extensions: (PortExtension | null)[];
  /** Elements of a match that is only thought of, as typed. */
  elements: string;
  /** "" or "13-24". */
  balanced: string;
  referenceOhm: number | null;
  time: TimeSetting;
  bandFromHz: number;
  bandToHz: number;
  memory: number | null;
  math: NonNullable<NetworkViewRequest["math"]>;
  otherVswr: number;
  resonance: string;
  cableMetres: number;
  fixture: boolean;
  candidates: boolean;
}

/** Good first tiles. */
const FIRST_TILES: Tiles = {
  count: 2,
  tiles: [
    { what: "S21", view: "LOG_MAGNITUDE" },
    { what: "S11", view: "SMITH" },
    { what: "S11", view: "RETURN_LOSS" },
    { what: "S21", view: "GROUP_DELAY" },
    { what: "S22", view: "RETURN_LOSS" },
    { what: "S21", view: "PHASE" },
  ],
};

const FIRST: NetworkSetting = {
  live: null,
  shown: [],
  smoothing: 0,
  apertureHz: 0,
  firstPart: null,
  lastPart: null,
  firstAdded: null,
  lastAdded: null,
  extensions: [null, null],
  elements: "",
  balanced: "",
  referenceOhm: null,
  time: {
    on: false,
    row: 1,
    mode: "BAND_PASS",
    shape: "BALANCED",
    velocityFactor: 0.85,
    gated: false,
    fromMetres: 0,
    toMetres: 10,
  },
  bandFromHz: Number.NaN,
  bandToHz: Number.NaN,
  memory: null,
  math: "OVER",
  otherVswr: 1.5,
  resonance: "",
  cableMetres: 0,
  fixture: false,
  candidates: false,
};

function stored(): NetworkSetting {
  const text = sessionStorage.getItem("rovnik-network");
  const kept = text ? { ...FIRST, ...(JSON.parse(text) as NetworkSetting) } : FIRST;
  // JSON knows no NaN.
  return {
    ...kept,
    bandFromHz: kept.bandFromHz ?? Number.NaN,
    bandToHz: kept.bandToHz ?? Number.NaN,
  };
}

const [BAND_FROM, BAND_TO] = [0, 1e15];

function requestOf(
  s: NetworkSetting,
  views: View[],
  asks: JobNetwork,
  markers: number[],
  device: string | null,
): NetworkViewRequest {
  const none = { delaySeconds: 0, lossDb: 0, atHz: 1e9 };
  const t = s.time;
  const from = Number.isNaN(s.bandFromHz) ? BAND_FROM : s.bandFromHz;
  const to = Number.isNaN(s.bandToHz) ? BAND_TO : s.bandToHz;
  const [connection, kind] = s.resonance.split(" ");
  return {
    networks: s.shown,
    panes: views.map(paneOf),
    smoothing: s.smoothing,
    apertureHz: s.apertureHz,
    change: {
      firstPart: s.firstPart,
      lastPart: s.lastPart,
      firstAdded: s.firstAdded,
      lastAdded: s.lastAdded,
      extensions: s.extensions.some(Boolean) ? s.extensions.map((e) => e ?? none) : null,
      elements: parseElements(s.elements).elements,
      referenceOhm: s.referenceOhm,
      balanced: s.balanced ? [...s.balanced.replace("-", "")].map(Number) : null,
    },
    time: t.on
      ? {
          row: t.row,
          column: t.row,
          mode: t.mode,
          shape: t.shape,
          velocityFactor: t.velocityFactor,
          gate: t.gated ? { fromMetres: t.fromMetres, toMetres: t.toMetres } : null,
          leastFault: null,
        }
      : null,
    memory: s.memory,
    math: s.memory === null ? null : s.math,
    limits: asks.limits,
    bands: [{ name: "", fromHz: from, toHz: to }, ...asks.bands],
    otherVswr: s.otherVswr,
    detailHz: markers,
    resonance: s.resonance
      ? {
          connection: connection as "BETWEEN_PORTS",
          series: kind === "series",
          fromHz: from,
          toHz: to,
        }
      : null,
    cableMetres: s.cableMetres > 0 ? s.cableMetres : null,
    fixture: s.fixture ? { empty: asks.fixtureEmpty, shorted: asks.fixtureShorted } : null,
    // Candidates are all held to the limits, whatever the device of the job.
    dut: s.candidates ? null : device,
  };
}

/** Views that are shown: beside the reflection over distance two of them, or four of six. */
export function viewsShown(tiles: Tiles, distance: boolean): View[] {
  const beside = tiles.count > 4 ? 4 : 2;
  return tiles.tiles.slice(0, distance ? Math.min(tiles.count, beside) : tiles.count).map(viewOf);
}

/** What a view that was kept says of this screen; files and job are left as they are. */
export function settingOf(v: NetworkViewRequest): Partial<NetworkSetting> {
  const c = v.change;
  const t = v.time;
  return {
    smoothing: v.smoothing ?? 0,
    apertureHz: v.apertureHz ?? 0,
    firstPart: c?.firstPart ?? null,
    lastPart: c?.lastPart ?? null,
    firstAdded: c?.firstAdded ?? null,
    lastAdded: c?.lastAdded ?? null,
    extensions: c?.extensions ?? [null, null],
    referenceOhm: c?.referenceOhm ?? null,
    balanced: c?.balanced
      ? `${c.balanced.slice(0, 2).join("")}-${c.balanced.slice(2).join("")}`
      : "",
    time: t
      ? {
          on: true,
          row: t.row,
          mode: t.mode,
          shape: t.shape,
          velocityFactor: t.velocityFactor,
          gated: t.gate !== null,
          fromMetres: t.gate?.fromMetres ?? FIRST.time.fromMetres,
          toMetres: t.gate?.toMetres ?? FIRST.time.toMetres,
        }
      : { ...FIRST.time, on: false },
    otherVswr: v.otherVswr ?? FIRST.otherVswr,
    cableMetres: v.cableMetres ?? 0,
  };
}

const NO_ASKS: JobNetwork = { limits: [], bands: [], fixtureEmpty: null, fixtureShorted: null };

/** Everything that the Network screen does with its files and its analyzer. */
export function useNetworks(job: Job | undefined, markers: number[]) {
  const queries = useQueryClient();
  const [setting, setSetting] = useState(stored);
  const [refused, setRefused] = useState("");
  const [dialog, setDialog] = useState<"" | "calibrate" | "limits">("");
  const change = useCallback(
    (part: Partial<NetworkSetting> | ((now: NetworkSetting) => Partial<NetworkSetting>)) =>
      setSetting((now) => {
        const next = { ...now, ...(typeof part === "function" ? part(now) : part) };
        sessionStorage.setItem("rovnik-network", JSON.stringify(next));
        return next;
      }),
    [],
  );
  const desk = useTiles("network", FIRST_TILES);
  const views = viewsShown(desk.tiles, setting.time.on);
  const { data: instruments = [] } = useInstruments();
  const analyzers = instruments.filter((i) => i.kind === "NETWORK_ANALYZER");
  const live = analyzers.find((a) => a.id === setting.live) ?? null;
  const { data: files } = useQuery({
    queryKey: ["networks"],
    queryFn: () => api.get<NetworkSummary[]>("/api/networks"),
  });
  const { data: asks = NO_ASKS } = useQuery({
    queryKey: ["job-network", job?.id],
    queryFn: () => api.get<JobNetwork>(`/api/jobs/${job?.id}/network`),
    enabled: job !== undefined,
  });
  const known = setting.shown.filter((id) => files?.some((f) => f.id === id));
  const shown = known.length || live ? known : files?.length ? [files[0].id] : [];
  const has = (id: number | null) => (files?.some((f) => f.id === id) ? id : null);
  const request = requestOf(
    { ...setting, shown, memory: has(setting.memory) },
    views,
    asks,
    markers.slice(0, 8),
    job?.dut ?? null,
  );
  const view = useQuery({
    queryKey: ["network-view", request],
    queryFn: () => api.post<{ networks: ShownNetwork[] }>("/api/networks/view", request),
    enabled: shown.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const analyzer = useAnalyzer(live?.id ?? null, job, request);
  const frame = live ? analyzer.frame : null;
  const fromFiles = shown.length ? (view.data?.networks ?? []) : [];
  const networks = frame ? [frame.network, ...fromFiles] : fromFiles;
  const main = networks[0];
  const ends = main?.frequencyHz.length
    ? [main.frequencyHz[0], main.frequencyHz[main.frequencyHz.length - 1]]
    : [0, 0];
  const from = Number.isNaN(setting.bandFromHz) ? ends[0] : setting.bandFromHz;
  const to = Number.isNaN(setting.bandToHz) ? ends[1] : setting.bandToHz;
  const open = async (chosen: File | null) => {
    if (!chosen) {
      return;
    }
    const form = new FormData();
    form.append("file", chosen);
    try {
      const made = await api.post<NetworkSummary>("/api/networks", form);
      await queries.invalidateQueries({ queryKey: ["networks"] });
      setRefused("");
      change({ shown: [made.id], live: null });
    } catch (e) {
      setRefused((e as Error).message);
    }
  };
  const saveAsks = async (part: Partial<JobNetwork>) => {
    if (job) {
      await api.put(`/api/jobs/${job.id}/network`, { ...asks, ...part });
      await queries.invalidateQueries({ queryKey: ["job-network", job.id] });
    }
  };
  return {
    setting,
    change,
    desk,
    views,
    dialog,
    setDialog,
    job,
    instruments,
    analyzers,
    live,
    analyzer,
    asks,
    saveAsks,
    files,
    shown,
    fromFiles,
    networks,
    wrong: refused || (view.error as Error | null)?.message || "",
    band: [from, to] as const,
    open,
    setRefused,
  };
}

/** All that is shown, with every sweep of the analyzer: for plots alone. */
export function useShown(model: NetworkModel): ShownNetwork[] {
  const sweep = useFrame(model.analyzer.store);
  return sweep ? [sweep.network, ...model.fromFiles] : model.networks;
}

export type NetworkModel = ReturnType<typeof useNetworks>;
