import { useCallback, useEffect, useRef, useState } from "react";
import { type FrameHeader, type LiveState, thisWindow } from "./client";

/** One frame as drawn. */
export interface Frame {
  header: FrameHeader;
  level: Float32Array;
  /** More traces on the same points, as the header's rows name them. */
  rows: Float32Array[];
}

export interface LiveStats {
  framesPerSecond: number;
  latencyMillis: number;
}

const BACK_OFF_MILLIS = [250, 500, 1000, 2000, 4000];

function decode(buffer: ArrayBuffer): Frame {
  const headerBytes = new DataView(buffer).getInt32(0, true);
  const text = new TextDecoder().decode(new Uint8Array(buffer, 4, headerBytes));
  const header = JSON.parse(text) as FrameHeader;
  const trace = (i: number) =>
    new Float32Array(buffer, 4 + headerBytes + 4 * i * header.points, header.points);
  return { header, level: trace(0), rows: header.rows.map((_, i) => trace(i + 1)) };
}

/**
 * Watches a source. The newest frame replaces the one before; frames that come faster than the
 * screen repaints are dropped, so a busy window never falls behind.
 */
export function useLive(source: string | null) {
  return useSource<Frame, LiveState>(source, decode);
}

/** Watches any source; {@link useLive} for what its frames and states are to the caller. */
export function useSource<
  F extends { header: { acquiredAtMillis: number } },
  S extends { source: string; revision: number },
>(source: string | null, decode: (buffer: ArrayBuffer) => F) {
  const [frame, setFrame] = useState<F | null>(null);
  const [state, takeState] = useState<S | null>(null);
  // A reply may arrive after the push of a newer state: the older one is dropped.
  const setState = useCallback(
    (next: S | null) =>
      takeState((now) =>
        next && now && next.source === now.source && next.revision < now.revision ? now : next,
      ),
    [],
  );
  const [connected, setConnected] = useState(false);
  const [stats, setStats] = useState<LiveStats>({ framesPerSecond: 0, latencyMillis: 0 });
  const newest = useRef<F | null>(null);

  useEffect(() => {
    setFrame(null);
    setState(null);
    newest.current = null;
    if (!source) {
      return;
    }
    let socket: WebSocket | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let attempt = 0;
    let ended = false;
    let painting = 0;
    let painted = 0;
    let latencySum = 0;

    const paint = () => {
      painting = 0;
      if (newest.current) {
        painted++;
        latencySum += Date.now() - newest.current.header.acquiredAtMillis;
        setFrame(newest.current);
      }
    };
    const open = () => {
      const scheme = location.protocol === "https:" ? "wss" : "ws";
      socket = new WebSocket(
        `${scheme}://${location.host}/api/frames?source=${source}&client=${thisWindow.id}`,
      );
      socket.binaryType = "arraybuffer";
      socket.onopen = () => {
        attempt = 0;
        setConnected(true);
      };
      socket.onmessage = (event) => {
        if (typeof event.data === "string") {
          setState(JSON.parse(event.data) as S);
          return;
        }
        newest.current = decode(event.data as ArrayBuffer);
        if (!painting) {
          painting = requestAnimationFrame(paint);
        }
      };
      socket.onclose = () => {
        // The socket of a source that was left closes late: it says nothing of the new one's.
        if (!ended) {
          setConnected(false);
          timer = setTimeout(
            open,
            BACK_OFF_MILLIS[Math.min(attempt++, BACK_OFF_MILLIS.length - 1)],
          );
        }
      };
    };
    open();
    const meter = setInterval(() => {
      setStats({ framesPerSecond: painted, latencyMillis: painted ? latencySum / painted : 0 });
      painted = 0;
      latencySum = 0;
    }, 1000);
    return () => {
      ended = true;
      clearTimeout(timer);
      clearInterval(meter);
      cancelAnimationFrame(painting);
      socket?.close();
    };
  }, [source, setState, decode]);

  return { frame, state, setState, connected, stats };
}
