import type { SeriesHead, ShownNetwork, SweepView } from "../../api/client";
import { type Arrays, placesOf, type RawFrame, valuesOf } from "../../api/frames";

/** One sweep as drawn: what the view shows of it, with its arrays in place. */
export interface SweepFrame {
  network: ShownNetwork;
  plane: string;
  /** Why nothing of it must be trusted. */
  marks: string[];
}

const NONE = new Float64Array(0);

function curveOf(series: SeriesHead | undefined, arrays: Arrays) {
  if (!series) {
    return { y: NONE, re: NONE, im: NONE };
  }
  const re = arrays.get(`${series.id}.re`);
  const im = arrays.get(`${series.id}.im`);
  return re && im ? { y: NONE, re, im } : { y: valuesOf(series, arrays), re: NONE, im: NONE };
}

/** A frame of any kind, read as a sweep of a network analyzer. */
export function sweepFrame({ header, arrays }: RawFrame): SweepFrame {
  const { network, plane } = header.view as SweepView;
  const { series, marks } = header.outcome;
  const find = (id: string) => series.find((s) => s.id === id);
  const first = series.find((s) => s.id.startsWith("pane"));
  const distance = find("distance");
  return {
    plane,
    marks,
    network: {
      ...network,
      frequencyHz: first ? placesOf(first, arrays) : NONE,
      curves: network.curves.map((c, i) => ({ ...c, ...curveOf(find(`pane${i}`), arrays) })),
      time:
        network.time && distance
          ? {
              ...network.time,
              metres: placesOf(distance, arrays),
              value: valuesOf(distance, arrays),
            }
          : null,
    },
  };
}
