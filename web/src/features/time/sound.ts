import { useSyncExternalStore } from "react";
import { api } from "../../api/client";
import { Player } from "./player";

/** What is heard now: one sound at a time, in the whole window. */
interface Playing {
  url: string;
  /** Of a sound that ends. */
  seconds: number;
  /** Of one that goes on: seconds that wait to be heard, and how often there were none. */
  live?: { waits: number; dropouts: number };
}

/** Where sound comes from as it is received. */
interface Lane {
  listen(ears: ((samples: Float32Array) => void) | null): void;
}

const TOLD_MILLIS = 250;

/** How often something was asked for, or silence: who asked before is not played any more. */
let asked = 0;
let context: AudioContext | undefined;
let source: AudioBufferSourceNode | undefined;
let playing: Playing | undefined;
let lane: Lane | undefined;
let telling: ReturnType<typeof setInterval> | undefined;
const watchers = new Set<() => void>();

function now(next: Playing | undefined) {
  playing = next;
  for (const watcher of watchers) {
    watcher();
  }
}

/** Ends what is heard. */
export function silence() {
  asked++;
  lane?.listen(null);
  lane = undefined;
  clearInterval(telling);
  if (source) {
    source.onended = null;
    source.stop();
    source = undefined;
  }
  now(undefined);
}

/** A context for sound, begun by a gesture; the one before is closed. */
function begin(options?: AudioContextOptions): AudioContext {
  context?.close();
  context = new AudioContext(options);
  return context;
}

/** Plays what is received as it comes, until it is silenced; called by a gesture only. */
export function hearOn(url: string, from: Lane) {
  silence();
  const player = new Player(begin({ sampleRate: Player.RATE_HZ }));
  lane = from;
  from.listen((samples) => player.take(samples));
  const tell = () =>
    now({ url, seconds: 0, live: { waits: player.waits(), dropouts: player.dropouts } });
  tell();
  telling = setInterval(tell, TOLD_MILLIS);
}

/** Plays what a desk of listening heard last; called by a gesture only. */
export async function hear(url: string) {
  silence();
  const own = asked;
  const began = begin();
  const data = await (await api.file(`${url}/sound`)).arrayBuffer();
  const buffer = await began.decodeAudioData(data);
  if (asked !== own) {
    return; // something else was asked for meanwhile, or the desk was left
  }
  const node = began.createBufferSource();
  node.buffer = buffer;
  node.connect(began.destination);
  node.onended = () => now(undefined);
  source = node;
  node.start();
  now({ url, seconds: buffer.duration });
}

/** What is heard now, if anything is. */
export function usePlaying(): Playing | undefined {
  return useSyncExternalStore(
    (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    () => playing,
  );
}
