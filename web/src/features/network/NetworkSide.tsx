import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import classes from "./NetworkPage.module.css";
import { FORMATS, inside, isChart, valueAt, valueWords } from "./panes";
import { type ChartMarker, impedanceWords, nearest } from "./SmithChart";
import type { NetworkModel } from "./useNetworks";

/** Worst values in the band, and what stands at the markers in every view. */
export function NetworkSide(props: {
  model: NetworkModel;
  markers: ChartMarker[];
  onRemove: (label: string) => void;
}) {
  const { model } = props;
  const [from, to] = model.band;
  const first = model.readings[0] ?? [];
  return (
    <>
      <div className={classes.row} data-testid="network-markers">
        <div className={classes.small}>
          Markers: click a plot or a chart, or type <em>marker 458.5M</em>
        </div>
        {props.markers.map((m) => (
          <div key={m.label} className={classes.row}>
            <span className="figures">
              {m.label}: {formatHertz(m.hertz, 8)}
            </span>{" "}
            <button
              type="button"
              aria-label={`Take marker ${m.label} away`}
              style={{ all: "unset", cursor: "pointer" }}
              onClick={() => props.onRemove(m.label)}
            >
              {"\u00D7"}
            </button>
            {model.setting.views.slice(0, model.setting.count).map((v, pane) => (
              <MarkerLine
                // biome-ignore lint/suspicious/noArrayIndexKey: views are numbered
                key={pane}
                model={model}
                pane={pane}
                hertz={m.hertz}
                label={`S${v.row}${v.column} ${isChart(v) ? "" : FORMATS[v.format]}`}
                chart={isChart(v)}
              />
            ))}
          </div>
        ))}
      </div>
      <div className={classes.sentence}>
        <strong>Worst values</strong> from{" "}
        <QuantityField
          label="Band from"
          unit="Hz"
          value={from}
          format={(v) => formatHertz(v, 6)}
          onCommit={(bandFromHz) => model.change({ bandFromHz })}
        />{" "}
        to{" "}
        <QuantityField
          label="Band to"
          unit="Hz"
          value={to}
          format={(v) => formatHertz(v, 6)}
          onCommit={(bandToHz) => model.change({ bandToHz })}
        />
      </div>
      {model.readingsWrong && <div className={classes.wrong}>{model.readingsWrong}</div>}
      {first.map((r) => (
        <div key={r.id} className={classes.row} data-testid={`figure-${r.id}`}>
          <div className={classes.small}>{r.label}</div>
          {model.readings.map((all, k) => {
            const own = all.find((x) => x.id === r.id);
            return own ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: one line a file, in their order
              <div key={k} className={`figures ${k === 0 ? classes.number : classes.small}`}>
                {figure(own.value, own.unit)}{" "}
                <span className={classes.small}>
                  at {formatHertz(own.atHz, 6)}
                  {k > 0 && `, ${model.networks[k]?.name ?? ""}`}
                </span>
              </div>
            ) : null;
          })}
        </div>
      ))}
    </>
  );
}

function figure(value: number | null, unit: string): string {
  if (value === null) {
    return "\u221E";
  }
  if (unit === "Hz") {
    return formatHertz(value, 5);
  }
  if (unit === "s" || unit === "\u03A9") {
    return formatEngineering(value, unit);
  }
  return unit === "dB"
    ? `${value.toFixed(2).replace("-", "\u2212")} dB`
    : `${Number(value.toPrecision(4))}${unit ? ` ${unit}` : ""}`;
}

function MarkerLine(props: {
  model: NetworkModel;
  pane: number;
  hertz: number;
  label: string;
  chart: boolean;
}) {
  const n = props.model.networks[0];
  const c = n?.curves[props.pane];
  if (!c) {
    return null;
  }
  const i = nearest(n.frequencyHz, props.hertz);
  const words = props.chart
    ? c.re.length && inside(n, props.hertz)
      ? impedanceWords(c.re[i], c.im[i], n.z0[0], n.frequencyHz[i])
      : "\u2014"
    : valueWords(valueAt(n, props.pane, props.hertz), c.unit);
  return (
    <div className="figures" style={{ fontSize: "0.86rem" }}>
      <span className={classes.small}>{props.label}</span> {words}
    </div>
  );
}
