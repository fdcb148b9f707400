import { Button, Select, Switch, Text } from "@mantine/core";
import { later } from "../../components/later";
import { QuantityField } from "../../components/QuantityField";
import { Choice } from "../../desk/Choice";
import desk from "../../desk/Desk.module.css";
import { Step } from "../../desk/Step";
import classes from "./NetworkPage.module.css";
import type { NetworkModel } from "./useNetworks";

const AsksEditor = later(async () => (await import("./AsksEditor")).AsksEditor);

/** Limits, bands, candidates, fixture, and what else is read. */
export function JudgeStep({ model }: { model: NetworkModel }) {
  const { setting, change, asks } = model;
  const n = asks.limits.length;
  return (
    <Step
      title="Judge"
      state={n ? "done" : "open"}
      aside={
        <Button
          size="compact-xs"
          variant="subtle"
          disabled={!model.job}
          onClick={() => model.setDialog("limits")}
        >
          Limits and bands
        </Button>
      }
    >
      <div className={desk.small}>
        {n ? `${n} ${n === 1 ? "limit" : "limits"}` : "no limits"}, {asks.bands.length}{" "}
        {asks.bands.length === 1 ? "band" : "bands"} in this job
      </div>
      <Switch
        size="xs"
        mt={3}
        label="candidates: parts against the limits"
        checked={setting.candidates}
        onChange={(e) => change({ candidates: e.currentTarget.checked })}
      />
      <Fixture model={model} />
      {model.dialog === "limits" && model.job && (
        <AsksEditor model={model} onClose={() => model.setDialog("")} />
      )}
    </Step>
  );
}

function Fixture({ model }: { model: NetworkModel }) {
  const { asks, setting, change, live, analyzer } = model;
  const both = asks.fixtureEmpty !== null && asks.fixtureShorted !== null;
  if (!live && !both) {
    return null;
  }
  return (
    <>
      <Switch
        size="xs"
        mt={4}
        label="home-made fixture: mind its own bounds"
        checked={setting.fixture}
        onChange={(e) => change({ fixture: e.currentTarget.checked })}
      />
      {setting.fixture && live && (
        <div className={classes.choice}>
          <Button size="compact-xs" variant="default" onClick={() => analyzer.fixture(true)}>
            {asks.fixtureEmpty === null ? "\u25CB" : "\u2713"} empty now
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => analyzer.fixture(false)}>
            {asks.fixtureShorted === null ? "\u25CB" : "\u2713"} shorted now
          </Button>
        </div>
      )}
    </>
  );
}

const RESONANCES = {
  "": "no resonance",
  "BETWEEN_PORTS series": "series circuit between the ports",
  "BETWEEN_PORTS parallel": "parallel circuit between the ports",
  "ACROSS_LINE series": "series circuit across the line",
  "ACROSS_LINE parallel": "parallel circuit across the line",
  "AT_PORT_1 series": "series circuit at port 1",
  "AT_PORT_1 parallel": "parallel circuit at port 1",
};

/** Memory, resonance, cable, mismatch. */
export function FurtherStep({ model }: { model: NetworkModel }) {
  const { setting, change, files = [] } = model;
  return (
    <Step title="Further" state="open">
      <div className={desk.sentence}>
        <Select
          size="xs"
          clearable
          aria-label="Memory"
          placeholder="reckon with a memory or file"
          data={files.map((f) => ({ value: String(f.id), label: f.name }))}
          value={files.some((f) => f.id === setting.memory) ? String(setting.memory) : null}
          onChange={(v) => change({ memory: v ? Number(v) : null })}
        />
        {setting.memory !== null && (
          <>
            show data{" "}
            <Choice
              label="How to reckon"
              value={setting.math}
              choices={{
                OVER: "over memory",
                MINUS: "minus memory",
                PLUS: "plus memory",
                TIMES: "times memory",
              }}
              onChange={(math) => change({ math: math as typeof setting.math })}
            />
            <br />
          </>
        )}
        look for{" "}
        <Choice
          label="Resonance"
          value={setting.resonance}
          choices={RESONANCES}
          onChange={(resonance) => change({ resonance })}
        />
        <br />
        cable of{" "}
        <QuantityField
          label="Length of the cable"
          unit="m"
          value={setting.cableMetres}
          words={{ none: 0, "": 0 }}
          format={(v) => (v === 0 ? "none" : `${Number(v.toPrecision(5))} m`)}
          next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
          onCommit={(cableMetres) => change({ cableMetres })}
        />
        <br />
        joined to a VSWR of{" "}
        <QuantityField
          label="VSWR of the other side"
          unit=""
          value={setting.otherVswr}
          next={(v, up) => Math.max(1, Number((v + (up ? 0.1 : -0.1)).toFixed(2)))}
          onCommit={(otherVswr) => change({ otherVswr: Math.max(1, otherVswr) })}
        />
      </div>
      {model.wrong && <Text fz="xs">{model.wrong}</Text>}
    </Step>
  );
}
