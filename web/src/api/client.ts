import type { components } from "./schema";

type Schemas = components["schemas"];

/** What the server always fills in, though a request may leave it out. */
type Filled<T, K extends keyof T> = Omit<T, K> & { [P in K]-?: NonNullable<T[P]> };

export type Instrument = Schemas["Instrument"];
export type Control = Schemas["Control"];
export type Hint = Schemas["Hint"];
export type WaveformPart = Schemas["WaveformPart"];
export type SentUser = Schemas["SentUser"];
export type Trigger = Schemas["Trigger"];
export type WaveformRequest = Schemas["WaveformRequest"];
export type WaveformPreview = Schemas["WaveformPreview"];
export type Waveform = Schemas["Waveform"];
export type InstrumentKind = Schemas["InstrumentKind"];
export type FoundInstrument = Schemas["FoundInstrument"];
export type SecondInput = Schemas["SecondInput"];
export type Job = Schemas["Job"];
export type Path = Schemas["Path"];
export type PathElement = Schemas["PathElement"];
export type Limits = Schemas["Limits"];
export type LevelPlan = Schemas["LevelPlan"];
export type ViewPlan = Filled<
  Schemas["ViewPlan"],
  "traces" | "reads" | "unit" | "impedanceOhm" | "mostPoints" | "reducer"
>;
export type SpectrumSettings = Omit<
  Filled<Schemas["SpectrumSettings"], "lines" | "fftLength">,
  "view"
> & { view: ViewPlan };
export type SpectrumView = Schemas["SpectrumView"];

/** State of a measurement of one source, with the settings and facts of its kind. */
export type SessionState<S, F> = Omit<Schemas["SessionState"], "settings" | "facts"> & {
  settings: S;
  facts: F;
};
export type SpectrumState = SessionState<SpectrumSettings, Schemas["SpectrumFacts"]>;
export type CarrierDescription = Schemas["CarrierDescription"];
export type CarrierSettings = Schemas["SingleCarrierSettings"];
export type AnalogSettings = Schemas["AnalogSettings"];
export type OfdmDescription = Schemas["OfdmDescription"];
export type OfdmSettings = Schemas["OfdmSettings"];
export type BurstSettings = Schemas["BurstSettings"];
export type AmplitudeSettings = Schemas["AmplitudeSettings"];
export type KnownRate = Schemas["KnownRate"];
export type ListenSettings = Schemas["ListenSettings"];
export type LiveCut = Schemas["LiveCut"];
export type Watch = Schemas["Watch"];
export type Watchable = Schemas["Watchable"];
export type NewWatch = Schemas["NewWatch"];
export type NewWatchReading = Schemas["NewWatchReading"];
export type Board = Schemas["Board"];
export type PlaceSettings = Schemas["PlaceSettings"];
export type NetSettings = Schemas["NetSettings"];
export type TriggerSettings = Schemas["TriggerSettings"];
export type ChannelSettings = Schemas["ChannelSettings"];
export type HopSettings = Schemas["HopSettings"];
export type SpectrogramSettings = Schemas["SpectrogramSettings"];
export type DensitySettings = Schemas["DensitySettings"];
export type ReceiverSettings = Schemas["ReceiverSettings"];
export type ReceiverState = SessionState<ReceiverSettings, Schemas["ReceiverSource"]>;
export type RecordView = Schemas["RecordView"];
export type RecordState<S> = SessionState<S, Schemas["RecordSource"]>;
export type NetworkSettings = Schemas["NetworkSettings"];
export type NetworkState = SessionState<NetworkSettings, Schemas["NetworkFacts"]>;

export type Outcome = Schemas["Outcome"];
export type Fact = Schemas["Fact"];
export type SeriesHead = Schemas["Series"];
export type ArrayHead = Schemas["ArrayHead"];
export type FrameHead = Schemas["Frame"];
export type Reading = Schemas["Reading"];
export type Peak = Schemas["Peak"];
export type Recording = Schemas["Recording"];
export type RunSummary = Schemas["RunSummary"];
export type Run = Schemas["Run"];
export type Comparison = Schemas["Comparison"];
export type TraceRow = Schemas["TraceRow"];
export type MaskSegment = Schemas["MaskSegment"];
export type ResultTable = Schemas["ResultTable"];
export type Tile = Schemas["Tile"];
export type Tiles = Schemas["Tiles"];
export type Arrangement = Schemas["Arrangement"];
export type Finding = Schemas["Finding"];
export type AdjacentPlan = Schemas["AdjacentPlan"];
export type SurveyRange = Schemas["SurveyRange"];
export type MarkerReading = Schemas["MarkerReading"];
export type NetworkSummary = Schemas["NetworkSummary"];
export type SweepView = Omit<Schemas["SweepView"], "network"> & { network: ShownNetwork };
export type NetworkPane = Schemas["NetworkPane"];
export type NetworkReading = Schemas["NetworkReading"];
export type LineFault = Schemas["LineFault"];
export type LimitOutcome = Schemas["LimitOutcome"];
export type NetworkLimit = Schemas["NetworkLimit"];
export type NetworkBand = Schemas["NetworkBand"];
export type BandReadings = Schemas["BandReadings"];
export type TwoPortDetail = Schemas["TwoPortDetail"];
export type PortExtension = Schemas["PortExtension"];
export type MatchElement = Schemas["MatchElement"];
export type TimeRequest = Schemas["TimeRequest"];
export type NetworkViewRequest = Schemas["NetworkViewRequest"];
export type JobNetwork = Schemas["JobNetwork"];
export type SweepSettings = Schemas["SweepSettings"];
export type Calibration = Schemas["KeptCalibration"];
export type VerifyReply = Schemas["VerifyReply"];

/** Arrays of a network: plain ones of a file, typed ones of a live sweep. */
export type TimeReply = Omit<Schemas["TimeReply"], "metres" | "value"> & {
  metres: ArrayLike<number>;
  value: ArrayLike<number>;
};
export type NetworkCurve = Omit<Schemas["NetworkCurve"], "y" | "re" | "im"> & {
  y: ArrayLike<number | null>;
  re: ArrayLike<number>;
  im: ArrayLike<number>;
};
export type ShownNetwork = Omit<Schemas["ShownNetwork"], "curves" | "time" | "frequencyHz"> & {
  frequencyHz: ArrayLike<number>;
  curves: NetworkCurve[];
  time: TimeReply | null;
};

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

/** What the window is told when the server wants somebody to sign in. */
export const SIGNED_OUT = "rovnik-signed-out";

/** A request whose refusals are problems. */
async function send(
  method: string,
  url: string,
  body?: unknown,
  accept = "*/*",
): Promise<Response> {
  const headers: Record<string, string> = {
    Accept: accept,
    "X-Rovnik-Client": encodeURIComponent(`${thisWindow.id}|${thisWindow.name}`),
  };
  let payload: BodyInit | undefined;
  if (body instanceof FormData) {
    payload = body;
  } else if (body instanceof URLSearchParams) {
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
    if (reply.status === 401) {
      window.dispatchEvent(new Event(SIGNED_OUT));
    }
    throw new Problem(
      problem.detail ?? `The server answered ${reply.status}.`,
      problem.field ?? "",
      reply.status,
    );
  }
  return reply;
}

export async function request<T>(method: string, url: string, body?: unknown): Promise<T> {
  const text = await (await send(method, url, body)).text();
  return (text ? JSON.parse(text) : undefined) as T;
}

export const api = {
  get: <T>(url: string) => request<T>("GET", url),
  /** What is no JSON. */
  file: (url: string) => send("GET", url),
  /** What comes as a binary frame. */
  frame: async (url: string, body: unknown) =>
    (await send("POST", url, body, "application/octet-stream")).arrayBuffer(),
  post: <T>(url: string, body: unknown = {}) => request<T>("POST", url, body),
  postText: <T>(url: string, text: string) => request<T>("POST", url, text),
  put: <T>(url: string, body: unknown) => request<T>("PUT", url, body),
  patch: <T>(url: string, body: unknown) => request<T>("PATCH", url, body),
  remove: (url: string) => request<void>("DELETE", url),
};
