import { Button } from "@mantine/core";
import { download } from "../../components/download";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, formatLevel, levelRatioDb, signed, step125 } from "../../components/units";
import classes from "../../desk/Desk.module.css";
import { type MarkerSet, markersCsv, readMarker } from "./markers";
import type { Frame } from "./spectrumFrame";

/** Numbers of all markers, their differences, and the pair of levels. */
export function MarkersPanel(props: {
  frame: Frame | null;
  markers: MarkerSet;
  onChange: (markers: MarkerSet) => void;
}) {
  const { frame, markers } = props;
  const main = frame && markers.main ? readMarker(frame, markers.main) : null;
  const unit = frame?.header.unit ?? "";
  const levels = markers.levels;
  const move = (i: 0 | 1, level: number) =>
    levels &&
    props.onChange({ ...markers, levels: i === 0 ? [level, levels[1]] : [levels[0], level] });
  return (
    <div className={classes.reading} data-testid="markers">
      <div className={classes.small}>Markers</div>
      {!markers.main && (
        <div className={classes.small}>m sets one on the highest line, a click anywhere</div>
      )}
      {markers.main && !main && (
        <div className={classes.small}>the marker lies outside the span</div>
      )}
      {main && (
        <div className={`figures ${classes.number}`}>
          1: {formatHertz(main.hertz, 10)}
          <br />
          {formatLevel(main.level, unit)}
        </div>
      )}
      {main && markers.reference && (
        <div className="figures">
          from ref: {formatHertz(main.hertz - markers.reference.hertz, 8)}
          <br />
          {signed(levelRatioDb(main.level, markers.reference.level, unit), 2)} dB
        </div>
      )}
      {frame &&
        markers.more.map((m, i) => {
          const r = readMarker(frame, m);
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: markers are numbered
            <div key={i} className={`figures ${classes.pinned}`}>
              <span>
                {i + 2}:{" "}
                {r ? `${formatHertz(r.hertz, 9)}, ${formatLevel(r.level, unit)}` : "not in view"}
                {r && main && (
                  <>
                    <br />
                    <span className={classes.small}>
                      from 1: {formatHertz(r.hertz - main.hertz, 7)},{" "}
                      {signed(levelRatioDb(r.level, main.level, unit), 2)} dB
                    </span>
                  </>
                )}
              </span>
              <button
                type="button"
                className={classes.takeAway}
                aria-label={`Take marker ${i + 2} away`}
                onClick={() =>
                  props.onChange({ ...markers, more: markers.more.filter((_, k) => k !== i) })
                }
              >
                {"\u00D7"}
              </button>
            </div>
          );
        })}
      {levels && (
        <div className={classes.sentence}>
          levels{" "}
          {([0, 1] as const).map((i) => (
            <QuantityField
              key={i}
              label={`Level line ${i + 1}`}
              unit={unit}
              value={levels[i]}
              format={(v) => (unit.startsWith("dB") ? `${v} ${unit}` : formatLevel(v, unit))}
              next={(v, up) => (unit.startsWith("dB") ? v + (up ? 1 : -1) : step125(v, up))}
              onCommit={(v) => move(i, v)}
            />
          ))}{" "}
          <span className="figures">
            {signed(levelRatioDb(levels[0], levels[1], unit), 2)} dB apart
          </span>
        </div>
      )}
      {frame && (main || markers.more.length > 0) && (
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => download("markers.csv", markersCsv(frame, markers), "text/csv")}
        >
          Markers as CSV
        </Button>
      )}
    </div>
  );
}
