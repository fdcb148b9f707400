import {
  Button,
  Checkbox,
  FileButton,
  Group,
  Menu,
  Progress,
  Select,
  Switch,
  Text,
  TextInput,
} from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { api } from "../../api/client";
import { ConfirmButton } from "../../components/ConfirmButton";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering, formatHertz } from "../../components/units";
import { Choice } from "../../desk/Choice";
import desk from "../../desk/Desk.module.css";
import { SetupMenu } from "../../desk/SetupMenu";
import { Step } from "../../desk/Step";
import { TilesSentence } from "../../desk/TilesSentence";
import { CalibrationStep, LevelStep, SweepSentence } from "./AnalyzerSteps";
import { parseElements } from "./asksText";
import { FurtherStep, JudgeStep } from "./JudgeStep";
import classes from "./NetworkPage.module.css";
import { Plugged, partOf } from "./Plugged";
import { PortExtensions } from "./PortExtensions";
import { type NetworkModel, settingOf } from "./useNetworks";

const MODES: Record<string, string> = {
  BAND_PASS: "band-pass",
  IMPULSE: "impulse",
  STEP: "step",
};

const SHAPES: Record<string, string> = {
  SHARP: "no window, sharpest",
  BALANCED: "balanced window",
  CLEAN: "window of lowest side lobes",
};

interface Props {
  model: NetworkModel;
  onRemove: (id: number) => void;
  onRemember: () => void;
}

/** What is shown, how it is corrected, and how it is turned into distance. */
export function NetworkSteps({ model, onRemove, onRemember }: Props) {
  const { setting, change, files = [], shown } = model;
  const toggle = (id: number) => {
    const next = shown.includes(id) ? shown.filter((s) => s !== id) : [...shown, id];
    change({ shown: next.length || model.live ? next : shown });
  };
  const row = (f: (typeof files)[number]) => (
    <div key={f.id} className={classes.file}>
      <Checkbox
        size="xs"
        aria-label={`Show ${f.name}`}
        checked={shown.includes(f.id)}
        onChange={() => toggle(f.id)}
      />
      <button
        type="button"
        className={`${classes.bare} ${classes.fileName}`}
        data-only={f.name}
        title={f.comments || "Show this file alone"}
        onClick={() => change({ shown: [f.id], live: null })}
      >
        {f.name}
        <div className={desk.small}>
          {f.ports} {f.ports === 1 ? "port" : "ports"}, {f.points} points,{" "}
          {formatHertz(f.startHz, 4)} to {formatHertz(f.stopHz, 4)}
        </div>
      </button>
      <FileMenu model={model} id={f.id} ports={f.ports} />
      <ConfirmButton
        size="compact-xs"
        variant="subtle"
        question={`Forget ${f.name}`}
        onConfirm={async () => onRemove(f.id)}
      >
        {"\u00D7"}
      </ConfirmButton>
    </div>
  );
  return (
    <>
      <Step
        title="Hook up"
        state={shown.length || model.live ? "done" : "attention"}
        aside={
          <FileButton onChange={model.open}>
            {(p) => (
              <Button {...p} size="compact-xs" variant="subtle">
                Open a Touchstone file
              </Button>
            )}
          </FileButton>
        }
      >
        {model.analyzers.map((a) => (
          <div key={a.id} className={classes.file}>
            <Checkbox
              size="xs"
              aria-label={`Show ${a.name}`}
              checked={setting.live === a.id}
              onChange={() => change({ live: setting.live === a.id ? null : a.id })}
            />
            <button
              type="button"
              className={`${classes.bare} ${classes.fileName}`}
              data-only={a.name}
              title="Show the analyzer alone"
              onClick={() => change({ live: a.id, shown: [] })}
            >
              <strong>{a.name}</strong>
              <div className={desk.small}>{a.identity ? "live" : "not connected yet"}</div>
            </button>
          </div>
        ))}
        {model.live && <Plugged model={model} />}
        {model.live ? (
          <details>
            <summary className={desk.small}>
              {files.length} files{shown.length ? `, ${shown.length} laid over` : ""}
            </summary>
            {files.map(row)}
          </details>
        ) : (
          files.map(row)
        )}
        {model.wrong && <div className={desk.mark}>{model.wrong}</div>}
      </Step>
      {model.live && <LevelStep model={model} />}
      <Step
        title="Settings"
        state="done"
        aside={
          model.live &&
          model.job && (
            <SetupMenu
              job={model.job}
              kind="network"
              settings={model.analyzer.state?.settings}
              tiles={model.desk.tiles}
              onTake={(settings, tiles) => {
                model.analyzer.take(settings);
                settings.view && change(settingOf(settings.view));
                tiles && model.desk.set(tiles);
              }}
              onWrong={model.analyzer.setProblem}
            />
          )
        }
      >
        {model.live && <SweepSentence model={model} />}
        <div className={desk.sentence}>
          smooth{" "}
          <QuantityField
            label="Smoothing"
            unit=""
            value={setting.smoothing * 100}
            format={(v) => `${Number(v.toPrecision(3))} %`}
            next={(v, up) => Math.max(0, Math.min(25, v + (up ? 1 : -1)))}
            onCommit={(v) => change({ smoothing: v / 100 })}
          />
          , delay over{" "}
          <QuantityField
            label="Aperture"
            unit="Hz"
            value={setting.apertureHz}
            words={{ points: 0, "": 0 }}
            format={(v) => (v === 0 ? "two points" : formatHertz(v))}
            onCommit={(apertureHz) => change({ apertureHz })}
          />
        </div>
        <TilesSentence desk={model.desk} />
      </Step>
      {model.live && <CalibrationStep model={model} />}
      {model.live && <Measure model={model} onRemember={onRemember} />}
      <JudgeStep model={model} />
      <Step title="Correct" state="done">
        <Corrections model={model} />
      </Step>
      <Step
        title="Distance"
        state="done"
        aside={
          <Switch
            size="xs"
            aria-label="Distance"
            checked={setting.time.on}
            onChange={(e) => change({ time: { ...setting.time, on: e.currentTarget.checked } })}
          />
        }
      >
        {setting.time.on && <Distance model={model} />}
      </Step>
      <FurtherStep model={model} />
    </>
  );
}

/** Start, hold, keep. */
function Measure({ model, onRemember }: { model: NetworkModel; onRemember: () => void }) {
  const { analyzer } = model;
  const { state, facts } = analyzer;
  const runs = state?.phase === "RUNNING";
  return (
    <Step title="Measure" state={runs ? "done" : "open"}>
      <div className={classes.choice}>
        <Button size="compact-sm" onClick={() => (runs ? analyzer.hold() : analyzer.start())}>
          {runs ? "Hold" : "Sweep"}
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => analyzer.start(true)}>
          One
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => analyzer.keep()}>
          Keep
        </Button>
        <Button size="compact-sm" variant="default" onClick={onRemember}>
          Remember
        </Button>
      </div>
      {facts && runs && facts.progress < 1 && (
        <Progress.Root size={18} mt={3}>
          <Progress.Section value={100 * facts.progress} aria-label="Progress of the sweep">
            <Progress.Label>{facts.remainingSeconds.toFixed(1)} s left</Progress.Label>
          </Progress.Section>
        </Progress.Root>
      )}
      {analyzer.note && <div className={desk.small}>{analyzer.note}</div>}
    </Step>
  );
}

/** What else can be done with a file. */
function FileMenu({ model, id, ports }: { model: NetworkModel; id: number; ports: number }) {
  const place = model.instruments.find((i) => partOf(i)?.choices.includes("Open"));
  const queries = useQueryClient();
  const load = async () => {
    try {
      await api.post(`/api/instruments/${place?.id}/load`, { networkId: id });
      await queries.invalidateQueries({ queryKey: ["instruments"] });
    } catch (e) {
      model.setRefused((e as Error).message);
    }
  };
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button size="compact-xs" variant="subtle" aria-label="More for this file">
          {"\u2026"}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item component="a" href={`/api/networks/${id}/touchstone?version=1`} download>
          Touchstone 1.1
        </Menu.Item>
        <Menu.Item component="a" href={`/api/networks/${id}/touchstone?version=2`} download>
          Touchstone 2.0
        </Menu.Item>
        <Menu.Item component="a" href={`/api/networks/${id}/csv`} download>
          CSV
        </Menu.Item>
        {place && ports === 2 && (
          <Menu.Item onClick={load}>Make it a part of the stand-ins</Menu.Item>
        )}
      </Menu.Dropdown>
    </Menu>
  );
}

function Corrections({ model }: { model: NetworkModel }) {
  const { setting, change, files = [], shown } = model;
  const parts = files
    .filter((f) => f.ports === 2 && f.id !== shown[0])
    .map((f) => ({ value: String(f.id), label: f.name }));
  const ports = model.networks[0]?.ports ?? 1;
  const wrong = parseElements(setting.elements).wrong;
  const four = ports === 4 || setting.balanced !== "";
  return (
    <div className={desk.sentence}>
      {ports === 2 &&
        ([1, 2] as const).flatMap((port) =>
          (["off", "on"] as const).map((way) => {
            const key = (
              { off: ["firstPart", "lastPart"], on: ["firstAdded", "lastAdded"] } as const
            )[way][port - 1];
            const title =
              way === "off" ? `take a part off port ${port}` : `put a part on port ${port}`;
            return (
              <Select
                key={key}
                aria-label={way === "off" ? `Part to take off port ${port}` : title}
                size="xs"
                mt={2}
                clearable
                placeholder={title}
                data={parts}
                value={String(setting[key] ?? "") || null}
                onChange={(v) => change({ [key]: v ? Number(v) : null })}
              />
            );
          }),
        )}
      {ports <= 2 && (
        <TextInput
          size="xs"
          mt={2}
          aria-label="Match elements"
          placeholder="what if: series L 12n, shunt C 3p"
          value={setting.elements}
          error={wrong}
          onChange={(e) => change({ elements: e.currentTarget.value })}
        />
      )}
      {four && (
        <>
          balanced ports{" "}
          <Choice
            label="Balanced ports"
            value={setting.balanced}
            choices={{ "": "none", "13-24": "1+3 and 2+4", "12-34": "1+2 and 3+4" }}
            onChange={(balanced) => change({ balanced })}
          />
        </>
      )}
      <PortExtensions model={model} ports={Math.min(2, ports)} />
      reference{" "}
      <QuantityField
        label="Reference impedance"
        unit="ohm"
        value={setting.referenceOhm ?? 0}
        words={{ "as measured": 0, "": 0 }}
        format={(v) => (v === 0 ? "as measured" : formatEngineering(v, "\u03A9"))}
        next={(v, up) => (up ? 75 : v === 75 ? 50 : 0)}
        onCommit={(v) => change({ referenceOhm: v === 0 ? null : v })}
      />
    </div>
  );
}

function Distance({ model }: { model: NetworkModel }) {
  const t = model.setting.time;
  const set = (part: Partial<typeof t>) => model.change({ time: { ...t, ...part } });
  const metres = (label: string, key: "fromMetres" | "toMetres") => (
    <QuantityField
      label={label}
      unit="m"
      value={t[key]}
      format={(v) => `${Number(v.toPrecision(4))} m`}
      next={(v, up) => v + (up ? 0.5 : -0.5)}
      onCommit={(v) => set({ [key]: v })}
    />
  );
  return (
    <div className={desk.sentence}>
      <Choice
        label="Port of the distance"
        value={String(t.row)}
        choices={{ "1": "from port 1", "2": "from port 2" }}
        onChange={(v) => set({ row: Number(v) })}
      />
      ,{" "}
      <Choice
        label="Response"
        value={t.mode}
        choices={MODES}
        onChange={(v) => set({ mode: v as typeof t.mode })}
      />
      <br />
      <Choice
        label="Window of the distance"
        value={t.shape}
        choices={SHAPES}
        onChange={(v) => set({ shape: v as typeof t.shape })}
      />
      <br />
      velocity factor{" "}
      <QuantityField
        label="Velocity factor"
        unit=""
        value={t.velocityFactor}
        format={(v) => String(v)}
        next={(v, up) => Number((v + (up ? 0.01 : -0.01)).toFixed(3))}
        onCommit={(velocityFactor) => set({ velocityFactor })}
      />
      <Group gap={6} mt={3} wrap="nowrap">
        <Switch
          size="xs"
          label="gate"
          checked={t.gated}
          onChange={(e) => set({ gated: e.currentTarget.checked })}
        />
        {t.gated && (
          <Text fz="sm">
            {metres("Gate from", "fromMetres")} to {metres("Gate to", "toMetres")}
          </Text>
        )}
      </Group>
    </div>
  );
}
