import type { Peak } from "../../api/client";
import type { PlotMarker } from "../../components/plotTypes";
import type { Frame } from "./spectrumFrame";

/** A point that the user set; it follows the line it was set on. */
export interface Marker {
  hertz: number;
  /** Set on a line: moves with it. */
  follows: boolean;
}

export interface MarkerSet {
  main: Marker | null;
  /** Reference of the delta, kept where and as high as it was. */
  reference: { hertz: number; level: number } | null;
  /** Further ones, pinned in the order they came. */
  more: Marker[];
  /** Two levels, for a difference up and down. */
  levels: [number, number] | null;
}

export const NO_MARKERS: MarkerSet = { main: null, reference: null, more: [], levels: null };

/** A marker with its numbers on the present frame. */
export interface MarkerReading {
  label: string;
  hertz: number;
  level: number;
}

function lineNear(frame: Frame, hertz: number): Peak | undefined {
  const reach = 2 * frame.header.rbwHz;
  return frame.header.peaks
    .filter((p) => Math.abs(p.frequencyHz - hertz) <= reach)
    .sort((a, b) => b.level - a.level)[0];
}

function traceAt(frame: Frame, hertz: number): number | null {
  const i = Math.round((hertz - frame.header.startHz) / frame.header.stepHz);
  return i >= 0 && i < frame.level.length ? frame.level[i] : null;
}

/** Numbers of a marker, interpolated if it sits on a line; null outside the span. */
export function readMarker(frame: Frame, marker: Marker, label = "1"): MarkerReading | null {
  const line = marker.follows ? lineNear(frame, marker.hertz) : undefined;
  if (line) {
    return { label, hertz: line.frequencyHz, level: line.level };
  }
  const level = traceAt(frame, marker.hertz);
  return level === null ? null : { label, hertz: marker.hertz, level };
}

/** The highest line, or the highest point if no line stands out. */
export function highest(frame: Frame): Marker {
  const [top] = frame.header.peaks;
  if (top) {
    return { hertz: top.frequencyHz, follows: true };
  }
  let best = 0;
  for (let i = 1; i < frame.level.length; i++) {
    if (frame.level[i] > frame.level[best]) {
      best = i;
    }
  }
  return { hertz: frame.header.startHz + best * frame.header.stepHz, follows: false };
}

/** The next lower line after the marker's; from the lowest back to the highest. */
export function nextLine(frame: Frame, marker: Marker | null): Marker {
  const at = marker ? lineNear(frame, marker.hertz) : undefined;
  const index = at ? frame.header.peaks.indexOf(at) : -1;
  const next = frame.header.peaks[(index + 1) % Math.max(1, frame.header.peaks.length)];
  return next ? { hertz: next.frequencyHz, follows: true } : highest(frame);
}

/** What the plot draws. */
export function plotMarkers(frame: Frame, set: MarkerSet): PlotMarker[] {
  const drawn: PlotMarker[] = [];
  if (set.reference) {
    drawn.push({ label: "ref", ...set.reference });
  }
  const main = set.main && readMarker(frame, set.main);
  if (main) {
    drawn.push(main);
  }
  drawn.push(...readMore(frame, set));
  return drawn;
}

/** The pinned markers that lie in view, numbered from 2. */
export function readMore(frame: Frame, set: MarkerSet): MarkerReading[] {
  return set.more
    .map((m, i) => readMarker(frame, m, String(i + 2)))
    .filter((m): m is MarkerReading => m !== null);
}

/** All markers as CSV. */
export function markersCsv(frame: Frame, set: MarkerSet): string {
  const unit = frame.header.unit;
  const rows = plotMarkers(frame, set).map(
    (m) => `${m.label},${m.hertz.toFixed(3)},${m.level.toFixed(3)}`,
  );
  return [
    `# plane: ${frame.header.plane}`,
    `marker,frequency (Hz),level (${unit})`,
    ...rows,
    "",
  ].join("\n");
}
