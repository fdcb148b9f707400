import { Tooltip } from "@mantine/core";
import type { ReactNode } from "react";
import type { Reading } from "../api/client";
import { formatCell } from "../components/formatCell";
import { decimalsFor, formatMeasuredSeconds, grouped, signed } from "../components/units";
import { VERDICT_SHAPE, VERDICT_WORDS } from "../components/verdicts";
import classes from "./Desk.module.css";

/** Colour of a verdict. */
const COLOUR: Record<Reading["verdict"], string> = {
  PASS: classes.pass,
  PASS_UNSURE: classes.unsure,
  FAIL_UNSURE: classes.unsure,
  FAIL: classes.fail,
  INVALID: classes.unsure,
  NONE: "",
};

const WORST_FIRST: Reading["verdict"][] = ["FAIL", "FAIL_UNSURE", "INVALID", "PASS_UNSURE", "PASS"];

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

/** Widths and times get a prefix; frequencies are written out. */
function ownUnit(r: Reading): boolean {
  return (
    r.unit === "s" || r.unit === "V" || r.unit === "W" || (r.unit === "Hz" && WIDTHS.has(r.id))
  );
}

const WIDTHS = new Set([
  "occupiedBandwidth",
  "residualFm",
  "occupied",
  "amount",
  "amountUp",
  "amountDown",
  "amountRms",
]);

/** Frequencies that are none of a difference. */
const PLACES = new Set([
  "carrierFrequency",
  "highestFrequency",
  "lineFrequency",
  "rate",
  "symbolRate",
  "toneSquelch",
  "toneRate",
  "toneAmount",
  "highest",
  "lowest",
]);

/** Numbers of things, which are certain. */
const COUNTS = new Set([
  "bursts",
  "missed",
  "hops",
  "hoppers",
  "free",
  "open",
  "passages",
  "triggers",
  "heldBack",
  "otherLength",
  "otherInterval",
  "fullLevel",
  "seen",
  "watched",
  "looked",
  "packets",
  "whole",
  "events",
  "usedChannels",
  "strongestChannel",
]);
const COUNT_OF_ONE = /^(channels[A-F]|score[12])$/;
const counted = (id: string) => COUNTS.has(id) || COUNT_OF_ONE.test(id) || id.endsWith(".outside");

export function formatValue(r: Reading): string {
  if (r.value === null) {
    return "\u2014";
  }
  if (r.unit === "s") {
    return formatMeasuredSeconds(r.value, r.uncertainty);
  }
  if (ownUnit(r) || r.unit === "%") {
    return formatCell(Number(r.value.toPrecision(4)), r.unit);
  }
  if (r.unit === "Hz") {
    const decimals = decimalsFor(r.uncertainty, 2);
    return PLACES.has(r.id.split(".")[0])
      ? grouped(r.value, decimals)
      : `${r.value > 0 ? "+" : ""}${grouped(r.value, decimals)}`;
  }
  if (r.unit === "V" || r.unit === "W" || r.unit === "rad") {
    return formatCell(Number(r.value.toPrecision(4)), r.unit);
  }
  if (r.unit === "") {
    return String(Number(r.value.toPrecision(4)));
  }
  return signed(r.value, r.unit === "ppm" ? Math.min(4, decimalsFor(r.uncertainty, 4)) : 2);
}

/** Differences of levels are in dB, whatever the levels refer to. */
export function differenceUnit(unit: string): string {
  return unit.startsWith("dB") ? "dB" : unit;
}

function plusMinus(r: Reading): string {
  if (counted(r.id)) {
    return "counted";
  }
  if (r.uncertainty === null || r.value === null) {
    return "uncertainty not known";
  }
  if (ownUnit(r)) {
    return `\u00B1 ${formatCell(Number(r.uncertainty.toPrecision(2)), r.unit)}`;
  }
  return `\u00B1 ${Number(r.uncertainty.toPrecision(2))} ${differenceUnit(r.unit)}`;
}

function limitWords(r: Reading): string {
  if (r.lower === null && r.upper === null) {
    return "";
  }
  const elsewhere =
    r.limitPlane && r.limitUncertainty !== null
      ? `, judged at ${r.limitPlane} with ${plusMinus({ ...r, uncertainty: r.limitUncertainty })}`
      : "";
  if (ownUnit(r)) {
    const margin = r.margin === null ? "" : `, margin ${formatCell(r.margin, r.unit)}`;
    const from = r.lower === null ? "at most" : `${formatCell(r.lower, r.unit)} to`;
    return `limit ${from} ${formatCell(r.upper ?? 0, r.unit)}${margin}${elsewhere}`;
  }
  const digits = r.unit === "Hz" ? 0 : r.unit === "ppm" ? 1 : 1;
  const bounds =
    r.lower !== null && r.upper !== null
      ? `${signed(r.lower, digits)} to ${signed(r.upper, digits)}`
      : r.upper !== null
        ? `at most ${signed(r.upper, digits)}`
        : `at least ${signed(r.lower ?? 0, digits)}`;
  const margin = r.margin === null ? "" : `, margin ${signed(r.margin, r.unit === "Hz" ? 0 : 2)}`;
  return `limit ${bounds} ${r.unit}${margin}${elsewhere}`;
}

/** Takes a reading away; undefined for one that always stands. */
type OnRemove = (id: string) => (() => void) | undefined;

/** The verdict, the judged reading large, and the other numbers with their trust. */
export function ReadingColumn(props: {
  readings: Reading[];
  /** Said under the verdict, as that nothing is live. */
  note?: string;
  onRemove?: OnRemove;
  /** Below the readings. */
  children?: ReactNode;
}) {
  const { readings, onRemove } = props;
  const worst = worstReading(readings);
  const big = worst ?? readings.find((r) => r.value !== null) ?? readings[0];
  return (
    <>
      <Verdict reading={worst} />
      {props.note && <div className={classes.small}>{props.note}</div>}
      {big && <ReadingRow reading={big} big onRemove={onRemove?.(big.id)} />}
      <div className={classes.rest}>
        {readings
          .filter((r) => r !== big && r.value !== null)
          .map((r) => (
            <ReadingRow key={r.id} reading={r} onRemove={onRemove?.(r.id)} />
          ))}
        <Idle
          readings={readings.filter((r) => r !== big && r.value === null)}
          onRemove={onRemove}
        />
        {props.children}
      </div>
    </>
  );
}

/** Readings that have no value now, folded, a line for each reason. */
function Idle({ readings, onRemove }: { readings: Reading[]; onRemove?: OnRemove }) {
  const reasons = [...new Set(readings.map((r) => r.marks.join(", ")))];
  return reasons.map((why) => {
    const all = readings.filter((r) => r.marks.join(", ") === why);
    return (
      <details key={why} className={classes.reading} data-testid="idle-readings">
        <summary className={classes.small}>
          {all.length === 1 ? all[0].label : `${all.length} readings`}: {why || "no value now"}
        </summary>
        {all.map((r) => (
          <ReadingRow key={r.id} reading={r} onRemove={onRemove?.(r.id)} />
        ))}
      </details>
    );
  });
}

function Verdict({ reading }: { reading: Reading | undefined }) {
  if (!reading) {
    return (
      <div className={classes.verdict} data-testid="verdict">
        no verdict
      </div>
    );
  }
  return (
    <div className={`${classes.verdict} ${COLOUR[reading.verdict]}`} data-testid="verdict">
      {VERDICT_SHAPE[reading.verdict]} {VERDICT_WORDS[reading.verdict]}
    </div>
  );
}

export function ReadingRow(props: { reading: Reading; big?: boolean; onRemove?: () => void }) {
  const { reading: r, big = false } = props;
  const why = r.contributions
    .map((c) => `${c.name}: ${Number(c.standard.toPrecision(2))} ${differenceUnit(r.unit)}`)
    .join("\n");
  return (
    <div className={classes.reading} data-testid={`reading-${r.id}`}>
      <div className={classes.small}>
        {r.label}
        {r.plane && ` at ${r.plane}`}
        {props.onRemove && (
          <button
            type="button"
            className={classes.takeAway}
            aria-label={`Take ${r.label} away`}
            onClick={props.onRemove}
          >
            {"\u00D7"}
          </button>
        )}
      </div>
      <div className={`figures ${big ? classes.big : classes.number}`}>
        <span className={classes.value}>
          {formatValue(r)} {!ownUnit(r) && <span style={{ fontSize: "0.8em" }}>{r.unit}</span>}
        </span>{" "}
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
        <div className={`${classes.small} ${COLOUR[r.verdict]}`}>
          {VERDICT_SHAPE[r.verdict]} {limitWords(r) || r.verdictText}
        </div>
      )}
    </div>
  );
}
