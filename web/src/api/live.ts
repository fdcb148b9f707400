import { useEffect, useState } from "react";
import { Cell, useCell } from "./cell";
import { thisWindow } from "./client";
import { type RawFrame, readFrame } from "./frames";

export interface LiveStats {
  /** Painted here. */
  framesPerSecond: number;
  /** Taken by the instrument, painted or not. */
  looksPerSecond: number;
  latencyMillis: number;
}

const BACK_OFF_MILLIS = [250, 500, 1000, 2000, 4000];

/** Words and numbers change no faster than they can be read: five times a second. */
const CALM_MILLIS = 200;

/** Looks may be this far apart before it is said that none come. */
const SILENT_SECONDS = 4;

const NO_STATS: LiveStats = { framesPerSecond: 0, looksPerSecond: 0, latencyMillis: 0 };

interface State {
  revision: number;
}

/**
 * What comes of one measurement of one source, outside React. Plots follow {@link frame}, which
 * changes with a repaint of the screen; words follow {@link calm}. Frames that come faster than the
 * screen repaints are dropped, so a busy window never falls behind.
 */
export class LiveStore<F, S extends State> {
  readonly frame = new Cell<F | null>(null);
  readonly calm = new Cell<F | null>(null);
  readonly state = new Cell<S | null>(null);
  readonly connected = new Cell(false);
  readonly stats = new Cell<LiveStats>(NO_STATS);

  /** Takes the sound as it comes, all of it and in its order; null for silence. */
  private ears: ((samples: Float32Array) => void) | null = null;

  private socket: WebSocket | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private calmTimer: ReturnType<typeof setTimeout> | undefined;
  private meter: ReturnType<typeof setInterval> | undefined;
  private attempt = 0;
  private ended = false;
  private newest: F | null = null;
  private acquiredAtMillis = 0;
  private painting = 0;
  private painted = 0;
  private silent = 0;
  private sequence = 0;
  private sequenceTold = 0;
  private latencySum = 0;

  constructor(
    readonly source: string,
    readonly measurement: string,
    private readonly decode: (raw: RawFrame) => F,
  ) {}

  /** A reply may arrive after the push of a newer state: the older one is dropped. */
  takeState = (next: S) => {
    const now = this.state.get();
    if (!now || next.revision >= now.revision) {
      this.state.set(next);
    }
  };

  /** Asks for the sound of what goes on, or for silence. */
  listen(ears: ((samples: Float32Array) => void) | null) {
    this.ears = ears;
    if (this.socket?.readyState === WebSocket.OPEN) {
      this.socket.send(ears ? "listen" : "silence");
    }
  }

  open() {
    this.ended = false;
    this.connect();
    this.meter = setInterval(() => {
      const n = this.painted;
      const seconds = 1 + this.silent;
      if (n === 0 && this.silent < SILENT_SECONDS) {
        this.silent++;
        return;
      }
      if (n > 0 || this.stats.get() !== NO_STATS) {
        this.stats.set(
          n > 0
            ? {
                framesPerSecond: Number((n / seconds).toPrecision(2)),
                looksPerSecond: Math.max(n, this.sequence - this.sequenceTold) / seconds,
                latencyMillis: this.latencySum / n,
              }
            : NO_STATS,
        );
      }
      this.painted = 0;
      this.silent = 0;
      this.latencySum = 0;
      this.sequenceTold = this.sequence;
    }, 1000);
  }

  close() {
    this.ended = true;
    clearTimeout(this.timer);
    clearTimeout(this.calmTimer);
    clearInterval(this.meter);
    cancelAnimationFrame(this.painting);
    this.painting = 0;
    this.calmTimer = undefined;
    this.socket?.close();
  }

  private connect() {
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    const socket = new WebSocket(
      `${scheme}://${location.host}/api/frames?source=${this.source}&measurement=${this.measurement}&client=${thisWindow.id}`,
    );
    this.socket = socket;
    socket.binaryType = "arraybuffer";
    socket.onopen = () => {
      this.attempt = 0;
      this.connected.set(true);
      if (this.ears) {
        socket.send("listen");
      }
    };
    socket.onmessage = (event) => {
      if (this.ended) {
        return;
      }
      if (typeof event.data === "string") {
        this.takeState(JSON.parse(event.data) as S);
        return;
      }
      const raw = readFrame(event.data as ArrayBuffer);
      if ("lane" in raw.header) {
        this.ears?.(raw.arrays.get("sound") as Float32Array);
        return;
      }
      this.newest = this.decode(raw);
      this.acquiredAtMillis = raw.header.acquiredAtMillis;
      this.sequence = raw.header.sequence;
      if (this.sequenceTold === 0 || this.sequence < this.sequenceTold) {
        this.sequenceTold = this.sequence - 1;
      }
      this.painting ||= requestAnimationFrame(this.paint);
    };
    socket.onclose = () => {
      // The socket of a source that was left closes late: it says nothing of the new one's.
      if (!this.ended) {
        this.connected.set(false);
        this.timer = setTimeout(
          () => this.connect(),
          BACK_OFF_MILLIS[Math.min(this.attempt++, BACK_OFF_MILLIS.length - 1)],
        );
      }
    };
  }

  private readonly paint = () => {
    this.painting = 0;
    this.painted++;
    this.latencySum += Date.now() - this.acquiredAtMillis;
    this.frame.set(this.newest);
    this.calmTimer ??= setTimeout(
      () => {
        this.calmTimer = undefined;
        this.calm.set(this.frame.get());
      },
      this.calm.get() === null ? 0 : CALM_MILLIS,
    );
  };
}

/** The store of a source while the component is shown; null without a source. */
export function useLiveStore<F, S extends State>(
  source: string | null,
  measurement: string,
  decode: (raw: RawFrame) => F,
): LiveStore<F, S> | null {
  const [store, setStore] = useState<LiveStore<F, S> | null>(null);
  useEffect(() => {
    if (!source) {
      setStore(null);
      return;
    }
    const made = new LiveStore<F, S>(source, measurement, decode);
    made.open();
    setStore(made);
    return () => made.close();
  }, [source, measurement, decode]);
  return store && store.source === source ? store : null;
}

/** Every frame that is painted: for plots alone. */
export const useFrame = <F, S extends State>(store: LiveStore<F, S> | null): F | null =>
  useCell(store?.frame);

/** The newest frame, as fast as it can be read. */
export const useCalmFrame = <F, S extends State>(store: LiveStore<F, S> | null): F | null =>
  useCell(store?.calm);

export const useLiveState = <F, S extends State>(store: LiveStore<F, S> | null): S | null =>
  useCell(store?.state);

export const useConnected = <F, S extends State>(store: LiveStore<F, S> | null): boolean =>
  useCell(store?.connected) ?? false;

export const useStats = <F, S extends State>(store: LiveStore<F, S> | null): LiveStats =>
  useCell(store?.stats) ?? NO_STATS;
