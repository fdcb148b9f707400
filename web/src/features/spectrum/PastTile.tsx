import { useRef } from "react";
import { useFrame } from "../../api/live";
import { axisOf } from "../../components/cursor";
import { formatHertz } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { Matrix } from "../../desk/Matrix";
import type { Frame, SpectrumStore } from "./spectrumFrame";

const MOST_LOOKS = 200;

interface PastLook {
  level: ArrayLike<number>;
  atMillis: number;
}

/** The looks that came last, the newest first, as long as they have the points of the present one. */
function usePast(frame: Frame | null): PastLook[] {
  const past = useRef<{ grid: string; looks: PastLook[] }>({ grid: "", looks: [] });
  if (frame) {
    const { startHz, stepHz, points, unit, acquiredAtMillis } = frame.header;
    const grid = `${startHz} ${stepHz} ${points} ${unit}`;
    const { looks } = past.current;
    if (past.current.grid !== grid) {
      past.current = { grid, looks: [{ level: frame.level, atMillis: acquiredAtMillis }] };
    } else if (looks[0]?.level !== frame.level) {
      const next = [{ level: frame.level, atMillis: acquiredAtMillis }, ...looks];
      past.current = { grid, looks: next.slice(0, MOST_LOOKS) };
    }
  }
  return past.current.looks;
}

/** What came before, look under look: a line that comes and goes leaves its trail. */
export function PastTile({
  store,
  range,
}: {
  store: SpectrumStore | null;
  range: [number, number];
}) {
  const frame = useFrame(store);
  const looks = usePast(frame);
  if (!frame || looks.length === 0) {
    return <p className={classes.said}>Nothing measured yet.</p>;
  }
  const { startHz, stepHz, points, unit } = frame.header;
  const seconds = (looks[0].atMillis - looks[looks.length - 1].atMillis) / 1000;
  return (
    <Matrix
      title="Past looks: level over frequency, the newest on top"
      rows={looks.map((l) => l.level)}
      across={[startHz, startHz + (points - 1) * stepHz]}
      axis={axisOf("Frequency", "Hz")}
      range={range}
      unit={unit}
      acrossWords={(hz) => formatHertz(hz, 7)}
      top="now"
      bottom={`${seconds.toFixed(1)} s ago (${looks.length} looks with gaps)`}
    />
  );
}
