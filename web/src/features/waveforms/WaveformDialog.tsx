import { Alert, Button, Group, Modal, Text } from "@mantine/core";
import { useState } from "react";
import {
  api,
  type CarrierDescription,
  type Instrument,
  type Job,
  type WaveformPart,
} from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, withMinus } from "../../components/units";
import { Choice } from "../../desk/Choice";
import deskClasses from "../../desk/Desk.module.css";
import { OutcomeTile } from "../../desk/OutcomeTile";
import { formatValue } from "../../desk/ReadingColumn";
import { RefusedSwitch } from "../../desk/RefusedSwitch";
import { useControls } from "../../desk/useControls";
import { PartSentence } from "./PartSentence";
import { useWaveform } from "./useWaveform";
import classes from "./WaveformDialog.module.css";

/** Describe a waveform, see what it will be like, and send it to a generator. */
export function WaveformDialog(props: {
  generator: Instrument;
  job: Job | undefined;
  /** Carrier with data to begin with. */
  carrier: CarrierDescription;
  /** Part to begin with, a carrier with data by default. */
  part?: Partial<WaveformPart>;
  onClose: () => void;
}) {
  const { generator, job, carrier, onClose } = props;
  const level = Number(generator.controls.find((c) => c.id === "level")?.value ?? Number.NaN);
  const fed = job?.path.elements[0]?.instrumentId === generator.id ? job : undefined;
  const w = useWaveform(carrier, fed, Number.isNaN(level) ? null : level, props.part);
  const { refused, leave, wrong, gated, url } = useControls(generator, job);
  const [tiles, setTiles] = useState([
    { what: "spectrum", view: "curve" },
    { what: "ccdf", view: "curve" },
  ]);
  const [sending, setSending] = useState(false);
  const [output, setOutput] = useState("carrier");
  const several = generator.controls.some((c) => c.id === "third-signal");
  const plan = w.preview?.plan;
  const outcome = w.preview?.outcome;

  const send = () => {
    setSending(true);
    return gated(async (overrideReason) => {
      const made = await w.make();
      await api.post(`${url}/play`, {
        waveformId: made.id,
        output: output === "third" ? output : null,
        jobId: job?.id ?? null,
        overrideReason,
      });
      onClose();
    }).finally(() => setSending(false));
  };
  return (
    <Modal opened onClose={onClose} title={`Waveform for ${generator.name}`} size={1100}>
      <div className={classes.body}>
        <div>
          {w.parts.map((part, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: parts are known by their place
            <div key={i} className={classes.part}>
              <PartSentence
                part={part}
                carrier={carrier}
                several={w.parts.length > 1}
                onChange={(change) => w.change(i, change)}
                onRemove={() => w.remove(i)}
              />
            </div>
          ))}
          <Button size="compact-xs" variant="default" onClick={w.add}>
            Add another signal
          </Button>
          <div className={`${deskClasses.sentence} ${classes.part}`}>
            sample rate{" "}
            <QuantityField
              label="Sample rate"
              unit="Hz"
              value={w.sampleRateHz}
              words={{ auto: 0 }}
              format={(v) => (v === 0 ? "auto" : formatHertz(v))}
              onCommit={w.setSampleRateHz}
            />
            , at least{" "}
            {w.single ? (
              <>
                <QuantityField
                  label="Symbols"
                  unit=""
                  whole
                  value={w.length}
                  words={{ auto: 0 }}
                  format={(v) => (v === 0 ? "10000" : String(v))}
                  onCommit={w.setLength}
                />{" "}
                symbols
              </>
            ) : (
              <QuantityField
                label="Length"
                unit="s"
                value={w.length}
                words={{ auto: 0 }}
                format={(v) => (v === 0 ? "10000 samples" : `${v} s`)}
                onCommit={w.setLength}
              />
            )}
            <br />
            {w.single ? "Eb/N0 " : "C/N in the sample rate "}
            <QuantityField
              label="Added noise"
              unit="dB"
              value={w.noiseDb ?? 0}
              words={{ none: Number.POSITIVE_INFINITY }}
              format={(v) => (w.noiseDb === null ? "without added noise" : `${v} dB`)}
              next={(v, up) => (w.noiseDb === null ? 20 : v + (up ? 1 : -1))}
              onCommit={(v) => w.setNoiseDb(Number.isFinite(v) ? v : null)}
            />
            {several && (
              <>
                <br />
                played on{" "}
                <Choice
                  label="Played on"
                  value={output}
                  choices={{ carrier: "the carrier", third: "the third output, in step" }}
                  onChange={setOutput}
                />
              </>
            )}
          </div>
          {outcome && (
            <Text fz="sm" mt={6} role="status">
              {withMinus(outcome.summary)}
            </Text>
          )}
          {w.wrong && (
            <Alert color="red" variant="light" p={8} mt={6}>
              {w.wrong}
            </Alert>
          )}
          {plan && output === "carrier" && (
            <table className={classes.levels}>
              <caption>Levels on the way, mean and peaks</caption>
              <tbody>
                {plan.planes.map((p) => (
                  <tr key={p.name}>
                    <td>{p.name}</td>
                    <td className="figures">{withMinus(p.levelDbm.toFixed(1))}</td>
                    <td className="figures">
                      {withMinus((p.levelDbm + plan.crestDb).toFixed(1))} dBm
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {output === "carrier" && plan?.findings[0] && (
            <Alert color={plan.blocked ? "red" : "yellow"} variant="light" p={8} mt={6}>
              {withMinus(plan.findings[0].sentence)}
            </Alert>
          )}
        </div>
        <div>
          <div className={classes.tiles}>
            {tiles.map((tile, place) => (
              <OutcomeTile
                // biome-ignore lint/suspicious/noArrayIndexKey: tiles are known by their place
                key={place}
                place={place}
                label={`Preview ${place + 1}`}
                tile={tile}
                look={outcome ? { outcome } : null}
                onChange={(part) =>
                  setTiles((now) => now.map((t, i) => (i === place ? { ...t, ...part } : t)))
                }
              />
            ))}
          </div>
          {outcome && (
            <dl className={classes.readings}>
              {outcome.readings.map((r) => (
                <div key={r.id}>
                  <dt>{r.label}</dt>
                  <dd className="figures">{`${formatValue(r)}${r.unit === "dB" ? " dB" : ""}`}</dd>
                </div>
              ))}
            </dl>
          )}
        </div>
      </div>
      {refused && <RefusedSwitch why={refused.why} onLeave={leave} onTurn={refused.again} />}
      {wrong && (
        <Alert color="red" variant="light" p={8} mt={6}>
          {wrong}
        </Alert>
      )}
      <Group justify="flex-end" mt={8}>
        <Button variant="default" onClick={onClose}>
          Leave it
        </Button>
        <Button onClick={send} loading={sending} disabled={!outcome || w.wrong !== ""}>
          Send it and play
        </Button>
      </Group>
    </Modal>
  );
}
