import type { ComponentType, ReactNode } from "react";
import type { Job, Tiles } from "../../api/client";
import type { Command } from "../../app/commands";
import type { RecordsModel } from "../modulation/useRecords";

/** What can be measured of things that come and go. */
export type TimeKind =
  | "bursts"
  | "density"
  | "spectrogram"
  | "amplitude"
  | "hops"
  | "channels"
  | "audio"
  | "trigger"
  | "nets"
  | "places"
  | "watch";

export const TIME_KINDS: Record<TimeKind, string> = {
  bursts: "Bursts",
  density: "Density and history",
  spectrogram: "Spectrogram of any length",
  amplitude: "Amplitude and instant",
  hops: "Hops",
  channels: "Channels of a band",
  audio: "Listening",
  trigger: "Trigger, without gaps",
  nets: "Which net is it?",
  places: "Places on a board",
  watch: "Long watch",
};

export const TIME_KIND_KEY = "rovnik-time-kind";

/** What a sentence of settings is made with. */
export interface SentenceProps<S extends object> {
  model: RecordsModel<S>;
  recording: boolean;
  job?: Job;
}

/** One of them, as the desk shows it. */
export interface TimeMeasurement<S extends object> {
  kind: TimeKind;
  /** What is typed to come here, and why one would. */
  command: { name: string; hint: string };
  /** Good first tiles. */
  tiles: Tiles;
  /** Others, under a name of their own, for settings that lead to other curves. */
  tilesFor?: (settings: S) => { name: string; tiles: Tiles } | undefined;
  Sentence: ComponentType<SentenceProps<S>>;
  /** What can be typed, besides what every desk of records knows. */
  commands: (change: RecordsModel<S>["change"], model: RecordsModel<S>) => Command[];
  /** What stands around its desk. */
  Around?: ComponentType<{
    job: Job | undefined;
    model: RecordsModel<S>;
    children: ReactNode;
  }>;
  /** What a band that is drawn in a spectrum does. */
  onBand?: (change: RecordsModel<S>["change"], band: [number, number]) => unknown;
  /** What a click on a place of an axis does. */
  onPlace?: { axis: string; take: (change: RecordsModel<S>["change"], x: number) => unknown };
}
