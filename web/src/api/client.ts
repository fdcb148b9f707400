import type { components } from "./schema";

type Schemas = components["schemas"];
export type Instrument = Omit<Schemas["Instrument"], "source" | "noise" | "parts"> & {
  source: Schemas["SourceState"] | null;
  noise: Schemas["NoiseState"] | null;
  parts: Schemas["PluggedPart"] | null;
};
export type SecondInput = Schemas["SecondInput"];
export type Job = Schemas["Job"];
export type Path = Schemas["Path"];
export type PathElement = Schemas["PathElement"];
export type Limits = Schemas["Limits"];
export type LevelPlan = Schemas["LevelPlan"];
export type ViewPlan = Omit<
  Schemas["ViewPlan"],
  "adjacent" | "density" | "mask" | "occupied" | "second"
> & {
  second: SecondInput | null;
  unit: string;
  impedanceOhm: number;
  adjacent: Schemas["AdjacentPlan"] | null;
  density: Schemas["DensityPlan"] | null;
  mask: MaskSegment[] | null;
  occupied: Schemas["OccupiedPlan"] | null;
};
export type SpectrumSettings = Omit<Schemas["SpectrumSettings"], "view"> & { view: ViewPlan };
export type LiveState = Omit<Schemas["LiveState"], "settings" | "guided"> & {
  settings: SpectrumSettings;
  guided: Schemas["GuidedProgress"] | null;
};
export type Reading = Schemas["Reading"];
export type Peak = Schemas["Peak"];
export type Recording = Schemas["Recording"];
export type RunSummary = Omit<Schemas["RunSummary"], "networkId"> & { networkId: number | null };
export type Run = Omit<Schemas["Run"], "settings" | "networkId"> & {
  settings: SpectrumSettings;
  networkId: number | null;
};
export type Comparison = Schemas["Comparison"];
export type FrameHeader = Omit<Schemas["Frame"], "settings"> & { settings: SpectrumSettings };
export type TraceRow = Schemas["TraceRow"];
export type MaskSegment = Schemas["MaskSegment"];
export type ResultTable = Schemas["ResultTable"];
export type Finding = Schemas["Finding"];
export type AdjacentPlan = Schemas["AdjacentPlan"];
export type SurveyRange = Schemas["SurveyRange"];
export type MarkerReading = Schemas["MarkerReading"];
export type Curve = Schemas["Curve"];
export type NetworkSummary = Schemas["NetworkSummary"];
export type NetworkPane = Schemas["NetworkPane"];
export type NetworkReading = Omit<Schemas["NetworkReading"], "value" | "uncertainty"> & {
  value: number | null;
  uncertainty: number | null;
};
export type TimeReply = Omit<Schemas["TimeReply"], "faults" | "metres" | "value"> & {
  metres: ArrayLike<number>;
  value: ArrayLike<number>;
  faults: LineFault[];
};
export type LineFault = Omit<Schemas["LineFault"], "ohm"> & { ohm: number | null };
export type NetworkCurve = Omit<Schemas["NetworkCurve"], "y" | "re" | "im"> & {
  y: ArrayLike<number | null>;
  re: ArrayLike<number>;
  im: ArrayLike<number>;
};
export type LimitOutcome = Schemas["LimitOutcome"];
export type NetworkLimit = Schemas["NetworkLimit"];
export type NetworkBand = Schemas["NetworkBand"];
export type BandReadings = Omit<Schemas["BandReadings"], "readings"> & {
  readings: NetworkReading[];
};
export type TwoPortDetail = Omit<
  Schemas["TwoPortDetail"],
  "matchedSource" | "matchedLoad" | "stabilityK" | "maximumGainDb" | "stableGainDb"
> & {
  stabilityK: number | null;
  maximumGainDb: number | null;
  stableGainDb: number | null;
  matchedSource: Schemas["ReflectionPoint"] | null;
  matchedLoad: Schemas["ReflectionPoint"] | null;
};
export type ShownNetwork = Omit<
  Schemas["ShownNetwork"],
  "curves" | "time" | "frequencyHz" | "bands" | "details" | "resonance" | "cable" | "window"
> & {
  frequencyHz: ArrayLike<number>;
  curves: NetworkCurve[];
  time: TimeReply | null;
  bands: BandReadings[];
  details: TwoPortDetail[];
  resonance: Schemas["ResonanceReply"] | null;
  cable: Schemas["CableReply"] | null;
  window: Schemas["FixtureWindow"] | null;
};
export type PortExtension = Schemas["PortExtension"];
export type MatchElement = Schemas["MatchElement"];
export type TimeRequest = Omit<Schemas["TimeRequest"], "gate" | "leastFault"> & {
  gate: Schemas["TimeGate"] | null;
  leastFault: number | null;
};
export interface NetworkViewRequest {
  networks: number[];
  panes: NetworkPane[];
  smoothing: number;
  apertureHz: number;
  change: {
    firstPart: number | null;
    lastPart: number | null;
    firstAdded: number | null;
    lastAdded: number | null;
    extensions: PortExtension[] | null;
    elements: MatchElement[];
    referenceOhm: number | null;
    balanced: number[] | null;
  };
  time: TimeRequest | null;
  memory: number | null;
  math: string | null;
  limits: NetworkLimit[];
  bands: NetworkBand[];
  otherVswr: number;
  detailHz: number[];
  resonance: Schemas["ResonanceAsk"] | null;
  cableMetres: number | null;
  fixture: { empty: number | null; shorted: number | null } | null;
}
export type JobNetwork = Omit<Schemas["JobNetwork"], "fixtureEmpty" | "fixtureShorted"> & {
  fixtureEmpty: number | null;
  fixtureShorted: number | null;
};
export type SweepSettings = Schemas["SweepSettings"];
export type AnalyzerState = Omit<
  Schemas["AnalyzerState"],
  "calibrating" | "levels" | "calibrationId" | "jobId"
> & {
  jobId: number | null;
  calibrationId: number | null;
  calibrating: (Omit<Schemas["Calibrating"], "measuring"> & { measuring: string | null }) | null;
  levels: Schemas["PortLevels"] | null;
};
/** Header of a sweep's frame; it comes over the socket, so the server's schema does not name it. */
export interface AnalyzerFrame {
  source: string;
  sequence: number;
  acquiredAtMillis: number;
  points: number;
  curvePoints: number[];
  complex: boolean[];
  timePoints: number;
  network: ShownNetwork;
  trust: string;
  plane: string;
  marks: string[];
}
export type Calibration = Schemas["KeptCalibration"];
export type VerifyReply = Schemas["VerifyReply"];

/** An error reply: what is wrong, what to do, and the field it concerns. */
export class Problem extends Error {
  constructor(
    detail: string,
    readonly field: string,
    readonly status: number,
  ) {
    super(detail);
  }
}

const ADJECTIVES = ["calm", "brisk", "amber", "quiet", "bright", "steady", "early", "keen"];
const BIRDS = ["heron", "gull", "tern", "plover", "curlew", "eider", "petrel", "dunlin"];

/** This window, as other windows see it; survives a reload but not a new tab. */
export const thisWindow = (() => {
  const stored = sessionStorage.getItem("rovnik-window");
  if (stored) {
    return JSON.parse(stored) as { id: string; name: string };
  }
  const pick = (list: string[]) => list[Math.floor(Math.random() * list.length)];
  const fresh = {
    id: Math.random().toString(36).slice(2),
    name: `the window "${pick(ADJECTIVES)} ${pick(BIRDS)}"`,
  };
  sessionStorage.setItem("rovnik-window", JSON.stringify(fresh));
  return fresh;
})();

async function request<T>(method: string, url: string, body?: unknown): Promise<T> {
  const headers: Record<string, string> = {
    "X-Rovnik-Client": encodeURIComponent(`${thisWindow.id}|${thisWindow.name}`),
  };
  let payload: BodyInit | undefined;
  if (body instanceof FormData) {
    payload = body;
  } else if (typeof body === "string") {
    headers["Content-Type"] = "text/plain";
    payload = body;
  } else if (body !== undefined) {
    headers["Content-Type"] = "application/json";
    payload = JSON.stringify(body);
  }
  const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie);
  if (token) {
    headers["X-XSRF-TOKEN"] = decodeURIComponent(token[1]);
  }
  let reply: Response;
  try {
    reply = await fetch(url, { method, headers, body: payload });
  } catch {
    throw new Problem("Rovnik's server does not answer. Check that it is running.", "", 0);
  }
  if (!reply.ok) {
    const problem = await reply.json().catch(() => ({}));
    throw new Problem(
      problem.detail ?? `The server answered ${reply.status}.`,
      problem.field ?? "",
      reply.status,
    );
  }
  const text = await reply.text();
  return (text ? JSON.parse(text) : undefined) as T;
}

export const api = {
  get: <T>(url: string) => request<T>("GET", url),
  post: <T>(url: string, body: unknown = {}) => request<T>("POST", url, body),
  postText: <T>(url: string, text: string) => request<T>("POST", url, text),
  put: <T>(url: string, body: unknown) => request<T>("PUT", url, body),
  patch: <T>(url: string, body: unknown) => request<T>("PATCH", url, body),
  remove: (url: string) => request<void>("DELETE", url),
};
