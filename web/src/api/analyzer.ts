import type { AnalyzerFrame } from "./client";

/** One sweep as drawn: the view with its arrays in place. */
export interface SweepFrame {
  header: AnalyzerFrame;
}

/** Header, frequencies as float64, then what the header names as float32. */
export function decodeSweep(buffer: ArrayBuffer): SweepFrame {
  const headerBytes = new DataView(buffer).getInt32(0, true);
  const text = new TextDecoder().decode(new Uint8Array(buffer, 4, headerBytes));
  const header = JSON.parse(text) as AnalyzerFrame;
  let at = 4 + headerBytes;
  const frequencyHz = new Float64Array(buffer, at, header.points);
  at += 8 * header.points;
  const floats = (n: number) => {
    const values = new Float32Array(buffer, at, n);
    at += 4 * n;
    return values;
  };
  const curves = header.network.curves.map((c, i) => {
    const n = header.curvePoints[i];
    const none = new Float32Array(0);
    return header.complex[i]
      ? { ...c, y: none, re: floats(n), im: floats(n) }
      : { ...c, y: floats(n), re: none, im: none };
  });
  const time = header.network.time;
  const network = {
    ...header.network,
    frequencyHz,
    curves,
    time: time && { ...time, metres: floats(header.timePoints), value: floats(header.timePoints) },
  };
  return { header: { ...header, network } };
}
