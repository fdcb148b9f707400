import type {
  Outcome,
  Peak,
  Reading,
  ResultTable,
  SpectrumSettings,
  SpectrumState,
  SpectrumView,
} from "../../api/client";
import { type Arrays, factOf, type RawFrame, valuesOf, wordsOf } from "../../api/frames";
import type { LiveStore } from "../../api/live";
import type { PlotCurve } from "../../components/plotTypes";
import { curvesOf, dataOf, linesOf, mainOf, tablesOf } from "../../desk/outcomes";

/** What is known of a frame of a spectrum. */
export interface SpectrumHeader extends SpectrumView {
  source: string;
  acquiredAtMillis: number;
  settings: SpectrumSettings;
  startHz: number;
  stepHz: number;
  points: number;
  unit: string;
  plane: string;
  rbwHz: number;
  enbwHz: number;
  segments: number;
  window: string;
  detector: string;
  marks: string[];
  peaks: Peak[];
  readings: Reading[];
  /** Labels of the further traces. */
  rows: string[];
  tables: ResultTable[];
  curves: PlotCurve[];
  spoiled: { fromHz: number; toHz: number; why: string }[];
}

/** One spectrum as drawn. */
export interface Frame {
  header: SpectrumHeader;
  /** The outcome as it came, for tiles that show any kind. */
  outcome: Outcome;
  arrays: Arrays;
  level: ArrayLike<number>;
  /** More traces on the same points, as the header's rows name them. */
  rows: ArrayLike<number>[];
}

export type SpectrumStore = LiveStore<Frame, SpectrumState>;

/** A frame of any kind, read as a spectrum. */
export function spectrumFrame({ header, arrays }: RawFrame): Frame {
  const o = header.outcome;
  const main = mainOf(o);
  if (!main) {
    throw new Error("a spectrum without a trace");
  }
  const rows = dataOf(o).slice(1);
  return {
    outcome: o,
    arrays,
    header: {
      ...(header.view as SpectrumView),
      source: header.source,
      acquiredAtMillis: header.acquiredAtMillis,
      settings: header.settings as SpectrumSettings,
      startHz: main.axis.start,
      stepHz: main.axis.step,
      points: main.axis.points,
      unit: main.unit,
      plane: main.plane,
      rbwHz: factOf(main, "RBW"),
      enbwHz: factOf(main, "ENBW"),
      segments: factOf(main, "averages"),
      window: wordsOf(main, "window"),
      detector: wordsOf(main, "detector"),
      marks: o.marks,
      peaks: linesOf(o),
      readings: o.readings,
      rows: rows.map((r) => r.label),
      tables: tablesOf(o),
      curves: curvesOf(
        o.series.filter((s) => s.role !== "DATA"),
        arrays,
      ),
      spoiled: o.spoiled,
    },
    level: valuesOf(main, arrays),
    rows: rows.map((r) => valuesOf(r, arrays)),
  };
}
