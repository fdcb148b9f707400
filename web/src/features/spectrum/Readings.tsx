import { Tooltip } from "@mantine/core";
import type { Reading } from "../../api/client";
import type { Frame } from "../../api/live";
import { decimalsFor, formatHertz, grouped, signed } from "../../components/units";
import { type MarkerSet, readMarker } from "./markers";
import classes from "./SpectrumPage.module.css";

/** Shape, words and colour of a verdict. */
const LOOK: Record<Reading["verdict"], [string, string]> = {
  PASS: ["\u2713", classes.pass],
  PASS_UNSURE: ["\u2248", classes.unsure],
  FAIL_UNSURE: ["\u2248", classes.unsure],
  FAIL: ["\u2717", classes.fail],
  INVALID: ["?", classes.unsure],
  NONE: ["", ""],
};

const WORST_FIRST: Reading["verdict"][] = ["FAIL", "FAIL_UNSURE", "INVALID", "PASS_UNSURE", "PASS"];

const WORDS: Record<Reading["verdict"], string> = {
  PASS: "PASS",
  PASS_UNSURE: "PASS, close",
  FAIL_UNSURE: "FAIL, close",
  FAIL: "FAIL",
  INVALID: "NOT JUDGED",
  NONE: "",
};

export function worstReading(readings: Reading[]): Reading | undefined {
  for (const verdict of WORST_FIRST) {
    const all = readings.filter((r) => r.verdict === verdict);
    if (all.length) {
      return all.sort((a, b) => relative(a) - relative(b))[0];
    }
  }
  return undefined;
}

/** Margin as a share of the limit's width, so that dB and ppm can be ordered. */
function relative(r: Reading): number {
  const width = r.upper !== null && r.lower !== null ? r.upper - r.lower : 1;
  return (r.margin ?? 0) / (width || 1);
}

export function formatValue(r: Reading): string {
  if (r.value === null) {
    return "\u2014";
  }
  if (r.unit === "Hz") {
    const decimals = decimalsFor(r.uncertainty, 2);
    return r.id === "carrierFrequency"
      ? grouped(r.value, decimals)
      : `${r.value > 0 ? "+" : ""}${grouped(r.value, decimals)}`;
  }
  return signed(r.value, r.unit === "ppm" ? Math.min(4, decimalsFor(r.uncertainty, 4)) : 2);
}

/** Differences of levels are in dB, whatever the levels refer to. */
export function differenceUnit(unit: string): string {
  return unit.startsWith("dB") ? "dB" : unit;
}

function plusMinus(r: Reading): string {
  if (r.uncertainty === null || r.value === null) {
    return "uncertainty not known";
  }
  return `\u00B1 ${Number(r.uncertainty.toPrecision(2))} ${differenceUnit(r.unit)}`;
}

function limitWords(r: Reading): string {
  if (r.lower === null && r.upper === null) {
    return "";
  }
  const digits = r.unit === "Hz" ? 0 : r.unit === "ppm" ? 1 : 1;
  const bounds =
    r.lower !== null && r.upper !== null
      ? `${signed(r.lower, digits)} to ${signed(r.upper, digits)}`
      : r.upper !== null
        ? `at most ${signed(r.upper, digits)}`
        : `at least ${signed(r.lower ?? 0, digits)}`;
  const margin = r.margin === null ? "" : `, margin ${signed(r.margin, r.unit === "Hz" ? 0 : 2)}`;
  return `limit ${bounds} ${r.unit}${margin}`;
}

/** The verdict, the numbers with their trust, and the markers. */
export function Readings(props: { frame: Frame | null; markers: MarkerSet; live: boolean }) {
  const { frame, markers } = props;
  const readings = frame?.header.readings ?? [];
  const worst = worstReading(readings);
  const big = worst ?? readings[0];
  return (
    <>
      <Verdict reading={worst} />
      {frame && !props.live && <div className={classes.small}>of the last trace, not live</div>}
      {big && <ReadingRow reading={big} big />}
      {readings
        .filter((r) => r !== big)
        .map((r) => (
          <ReadingRow key={r.id} reading={r} />
        ))}
      <Markers frame={frame} markers={markers} />
    </>
  );
}

function Verdict({ reading }: { reading: Reading | undefined }) {
  if (!reading) {
    return (
      <div className={classes.verdict} data-testid="verdict">
        no verdict
      </div>
    );
  }
  const [shape, colour] = LOOK[reading.verdict];
  return (
    <div className={`${classes.verdict} ${colour}`} data-testid="verdict">
      {shape} {WORDS[reading.verdict]}
    </div>
  );
}

function ReadingRow({ reading: r, big = false }: { reading: Reading; big?: boolean }) {
  const [shape, colour] = LOOK[r.verdict];
  const why = r.contributions
    .map((c) => `${c.name}: ${Number(c.standard.toPrecision(2))} ${differenceUnit(r.unit)}`)
    .join("\n");
  return (
    <div className={classes.reading} data-testid={`reading-${r.id}`}>
      <div className={classes.small}>
        {r.label} at {r.plane}
      </div>
      <div className={`figures ${big ? classes.big : classes.number}`}>
        {formatValue(r)} <span style={{ fontSize: "0.8em" }}>{r.unit}</span>
        {r.value !== null && (
          <Tooltip
            multiline
            style={{ whiteSpace: "pre-line" }}
            label={why ? `k = 2; standard uncertainties\n${why}` : "not known for this reading"}
          >
            <span className={classes.trust}>{plusMinus(r)}</span>
          </Tooltip>
        )}
      </div>
      {r.marks.length > 0 && <div className={classes.mark}>{`\u26A0 ${r.marks.join(", ")}`}</div>}
      {r.verdict !== "NONE" && (
        <div className={`${classes.small} ${colour}`}>
          {shape} {limitWords(r)}
        </div>
      )}
    </div>
  );
}

function Markers({ frame, markers }: { frame: Frame | null; markers: MarkerSet }) {
  const main = frame && markers.main ? readMarker(frame, markers.main) : null;
  const unit = frame?.header.unit ?? "";
  return (
    <div className={classes.reading} data-testid="markers">
      <div className={classes.small}>Markers</div>
      {!markers.main && <div className={classes.small}>m sets one on the highest line</div>}
      {markers.main && !main && (
        <div className={classes.small}>the marker lies outside the span</div>
      )}
      {main && (
        <div className={`figures ${classes.number}`}>
          1: {formatHertz(main.hertz, 10)}
          <br />
          {signed(main.level, 2)} {unit}
        </div>
      )}
      {main && markers.reference && (
        <div className="figures">
          from ref: {formatHertz(main.hertz - markers.reference.hertz, 8)}
          <br />
          {signed(main.level - markers.reference.level, 2)} dB
        </div>
      )}
    </div>
  );
}
