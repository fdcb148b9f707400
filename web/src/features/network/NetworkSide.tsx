import type { ShownNetwork } from "../../api/client";
import { nearest } from "../../components/nearest";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz, signed } from "../../components/units";
import { VERDICT_SHAPE, VERDICT_WORDS } from "../../components/verdicts";
import desk from "../../desk/Desk.module.css";
import { impedanceWords } from "./impedance";
import classes from "./NetworkPage.module.css";
import { active, type ChartMarker, FORMATS, inside, isChart, valueAt, valueWords } from "./panes";
import type { NetworkModel } from "./useNetworks";

/** Verdict, worst values in the bands, and what stands at the markers in every view. */
export function NetworkSide(props: {
  model: NetworkModel;
  markers: ChartMarker[];
  onRemove: (label: string) => void;
}) {
  const { model } = props;
  const [from, to] = model.band;
  const main = model.networks[0];
  const frame = model.live ? model.analyzer.frame : null;
  const [whole, ...bands] = main?.bands ?? [];
  return (
    <>
      {main && main.outcomes.length > 0 && (
        <div data-testid="network-verdict">
          <div
            className={desk.verdict}
            style={{ color: main.verdict.startsWith("FAIL") ? "var(--fail)" : undefined }}
          >
            {main.verdict === "NONE"
              ? "no verdict"
              : `${VERDICT_SHAPE[main.verdict]} ${VERDICT_WORDS[main.verdict]}`}
          </div>
          {model.networks.length > 1 && <div className={desk.small}>of {main.name}</div>}
          {main.outcomes.map((o) => (
            <div key={o.name} className={desk.small}>
              {VERDICT_SHAPE[o.verdict]} {o.name}:{" "}
              {o.verdict === "NONE" && o.verdictText ? (
                o.verdictText
              ) : o.margin == null ? (
                "no point in it"
              ) : (
                <span className="figures">
                  margin {signed(o.margin, 2)} {o.unit} at {formatHertz(o.atHz ?? 0, 5)}
                </span>
              )}
            </div>
          ))}
        </div>
      )}
      <div className={desk.rest}>
        {frame && (
          <div className={desk.small} data-testid="network-trust">
            at {frame.plane}; {model.analyzer.facts?.trustText}
            {frame.marks.map((m) => (
              <div key={m} className={desk.mark}>
                {"\u26A0"} {m}: not to be trusted
              </div>
            ))}
          </div>
        )}
        {main?.notes.map((n) => (
          <div key={n} className={desk.mark}>
            {n}
          </div>
        ))}
        <div className={desk.reading} data-testid="network-markers">
          <div className={desk.small}>
            Markers: click a plot or a chart, or type <em>marker 458.5M</em>
          </div>
          {props.markers.map((m) => (
            <div key={m.label} className={desk.reading}>
              <span className="figures">
                {m.label}: {formatHertz(m.hertz, 8)}
              </span>{" "}
              <button
                type="button"
                aria-label={`Take marker ${m.label} away`}
                className={classes.bare}
                onClick={() => props.onRemove(m.label)}
              >
                {"\u00D7"}
              </button>
              {model.views.map((v, pane) => (
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
        <Special network={main} />
        {main && (
          <div className={desk.sentence}>
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
        )}
        {whole && <Figures model={model} band={0} />}
        {bands.map((b, i) => (
          <div key={b.name}>
            <div className={desk.sentence}>
              <strong>{b.name}</strong>
            </div>
            <Figures model={model} band={i + 1} />
          </div>
        ))}
      </div>
    </>
  );
}

/** Insertion loss and return loss are easily taken for one another. */
const EXPLAINED: Record<string, string> = {
  gainLowest: "What passes through the part. Its negative is the insertion loss.",
  returnLoss1:
    "What comes back from port 1: the higher, the better the match. It is no loss on the way through.",
  returnLoss2:
    "What comes back from port 2: the higher, the better the match. It is no loss on the way through.",
  mismatchLoss1: "What does not enter port 1 because it is reflected.",
  stabilityMu: "Above 1 the part is stable with any passive load.",
  powerOut: "Above 1 the part gives out more power than it takes: it is not passive.",
};

/** Figures of what passes through, which a fixture spoils. */
const THROUGH = new Set(["gainLowest", "gainHighest", "isolation", "seriesImpedance"]);

/** Says where a value is more of the fixture than of the part. */
function Doubt({ network, hertz }: { network: ShownNetwork; hertz: number }) {
  const doubted = network.window?.near.some((s) => hertz >= s.fromHz && hertz <= s.toHz);
  return doubted ? <div className={desk.mark}>{"\u26A0"} too near to the fixture</div> : null;
}

function Figures({ model, band }: { model: NetworkModel; band: number }) {
  const first = model.networks[0]?.bands[band]?.readings ?? [];
  return (
    <>
      {first.map((r) => (
        <div
          key={r.id}
          className={desk.reading}
          data-testid={band === 0 ? `figure-${r.id}` : `figure-${r.id}-${band}`}
          title={EXPLAINED[r.id]}
        >
          <div className={desk.small}>
            {r.label}
            {EXPLAINED[r.id] ? " (?)" : ""}
          </div>
          {model.networks.map((n, k) => {
            const own = n.bands[band]?.readings.find((x) => x.id === r.id);
            return own ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: one line a network, in their order
              <div key={k} className={`figures ${k === 0 ? desk.number : desk.small}`}>
                {figure(own.value, own.unit)}
                {own.uncertainty !== null && (
                  <span className={desk.small}>
                    {" "}
                    {"\u00B1"} {Number(own.uncertainty.toPrecision(2))}
                  </span>
                )}{" "}
                <span className={desk.small}>
                  at {formatHertz(own.atHz, 6)}
                  {k > 0 && `, ${n.name}`}
                </span>
                {THROUGH.has(r.id) && <Doubt network={n} hertz={own.atHz} />}
              </div>
            ) : null;
          })}
        </div>
      ))}
    </>
  );
}

/** Resonance, cable, and stability at the first marker. */
function Special({ network }: { network: NetworkModel["networks"][number] | undefined }) {
  const r = network?.resonance;
  const c = network?.cable;
  return (
    <>
      {r && (
        <div className={desk.reading} data-testid="resonance">
          <div className={desk.small}>
            Resonance, {r.seriesCircuit ? "series" : "parallel"} circuit
          </div>
          <div className={`figures ${desk.number}`}>{formatHertz(r.hertz, 8)}</div>
          <div className="figures">
            Q {Number(r.quality.toPrecision(4))}, {formatEngineering(r.henry, "H")},{" "}
            {formatEngineering(r.farad, "F")}, {formatEngineering(r.ohm, "\u03A9")}
          </div>
        </div>
      )}
      {c && (
        <div className={desk.reading} data-testid="cable">
          <div className={desk.small}>Cable</div>
          <div className={`figures ${desk.number}`}>
            velocity factor {c.velocityFactor.toFixed(4)}
          </div>
          <div className="figures">
            {c.lossDbPerMetre.toFixed(4)} dB/m at {formatHertz(c.atHz, 5)}
          </div>
        </div>
      )}
      {network?.details.filter(active).map((d) => (
        <div key={d.hertz} className={desk.reading} data-testid="stability">
          <div className={desk.small}>Stability at {formatHertz(d.hertz, 6)}</div>
          <div className="figures">
            K {d.stabilityK === null ? "\u221E" : d.stabilityK.toFixed(3)}, mu{" "}
            {d.stabilityMu.toFixed(3)}
            {d.maximumGainDb !== null && `, highest gain ${d.maximumGainDb.toFixed(2)} dB`}
            {d.maximumGainDb === null &&
              d.stableGainDb !== null &&
              `, stable to ${d.stableGainDb.toFixed(2)} dB`}
          </div>
          {d.matchedSource && d.matchedLoad && (
            <div className={`figures ${desk.small}`}>
              match: source {polar(d.matchedSource)}, load {polar(d.matchedLoad)}
            </div>
          )}
        </div>
      ))}
    </>
  );
}

function polar(g: { re: number; im: number }): string {
  const degrees = (Math.atan2(g.im, g.re) * 180) / Math.PI;
  return `${Math.hypot(g.re, g.im).toFixed(3)} \u2220 ${signed(degrees, 1)}\u00B0`;
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
    ? `${value
        .toFixed(2)
        .replace(/^-0\.00$/, "0.00")
        .replace("-", "\u2212")} dB`
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
  const view = props.model.views[props.pane];
  const i = nearest(n.frequencyHz, props.hertz);
  const words = props.chart
    ? c.re.length && inside(n, props.hertz)
      ? impedanceWords(c.re[i], c.im[i], n.z0[0], n.frequencyHz[i])
      : "\u2014"
    : valueWords(valueAt(n, props.pane, props.hertz), c.unit);
  return (
    <div className="figures" style={{ fontSize: "0.86rem" }}>
      <span className={desk.small}>{props.label}</span> {words}
      {view.row !== view.column && <Doubt network={n} hertz={props.hertz} />}
    </div>
  );
}
