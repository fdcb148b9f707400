import { useSyncExternalStore } from "react";
import { api } from "../../api/client";

/** What is heard now: one sound at a time, in the whole window. */
interface Playing {
  url: string;
  seconds: number;
}

/** How often something was asked for, or silence: who asked before is not played any more. */
let asked = 0;
let context: AudioContext | undefined;
let source: AudioBufferSourceNode | undefined;
let playing: Playing | undefined;
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
  if (source) {
    source.onended = null;
    source.stop();
    source = undefined;
  }
  now(undefined);
}

/** Plays what a desk of listening heard last; called by a gesture only. */
export async function hear(url: string) {
  silence();
  const own = asked;
  const began = new AudioContext();
  const before = context;
  context = began;
  await before?.close();
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
