import { Button, Checkbox, Select, Text } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Calibration } from "../../api/client";
import { ConfirmButton } from "../../components/ConfirmButton";
import { later } from "../../components/later";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, signed, step125 } from "../../components/units";
import { Choice } from "../../desk/Choice";
import desk from "../../desk/Desk.module.css";
import { Step } from "../../desk/Step";
import type { NetworkModel } from "./useNetworks";

const SegmentsEditor = later(async () => (await import("./SegmentsEditor")).SegmentsEditor);

const CalibratePanel = later(async () => (await import("./CalibratePanel")).CalibratePanel);

/** Levels at both ports and the question about dc. */
export function LevelStep({ model }: { model: NetworkModel }) {
  const { facts, dcChecked, setDcChecked, atPart, setAtPart } = model.analyzer;
  const levels = facts?.levels;
  if (!levels) {
    return (
      <Step title="Levels" state="attention">
        <Text fz="xs">
          The path of this job does not begin and end at this analyzer: levels are not checked. Set
          both ends of the path to it.
        </Text>
      </Step>
    );
  }
  const open = levels.dcQuestion !== "" && !dcChecked;
  return (
    <Step title="Levels" state={levels.blocking || open ? "attention" : "done"}>
      {levels.blocking && <div className={desk.mark}>{levels.blocking}</div>}
      {levels.backward.map((b) => (
        <div key={b} className={desk.small}>
          {b}
        </div>
      ))}
      {levels.dcQuestion && (
        <>
          {!dcChecked && <div className={desk.small}>{levels.dcQuestion}</div>}
          <Checkbox
            size="xs"
            mt={3}
            label="checked: no dc at the ports"
            checked={dcChecked}
            onChange={(e) => {
              setDcChecked(e.currentTarget.checked);
              model.analyzer.setProblem(null);
            }}
          />
        </>
      )}
      <div className={desk.sentence}>
        read at{" "}
        <Choice
          label="Read at"
          value={atPart ? "part" : "ports"}
          choices={{ part: "the part itself", ports: "the calibrated ports" }}
          onChange={(v) => setAtPart(v === "part")}
        />
      </div>
    </Step>
  );
}

const TYPES = { LINEAR: "even steps", LOGARITHMIC: "even ratios", SEGMENTS: "segments" };

/** The sweep as a sentence. */
export function SweepSentence({ model }: { model: NetworkModel }) {
  const s = model.analyzer.sweep;
  const [segments, setSegments] = useState(false);
  if (!s) {
    return null;
  }
  const change = model.analyzer.change;
  return (
    <div className={desk.sentence} data-testid="sweep">
      {s.type === "SEGMENTS" ? (
        <>
          {s.segments.length} segments, {s.segments.reduce((all, x) => all + x.points, 0)} points{" "}
          <Button size="compact-xs" variant="subtle" onClick={() => setSegments(true)}>
            edit
          </Button>
        </>
      ) : (
        <>
          from{" "}
          <QuantityField
            label="Start"
            unit="Hz"
            value={s.startHz}
            format={(v) => formatHertz(v)}
            onCommit={(startHz) => change({ startHz })}
          />{" "}
          to{" "}
          <QuantityField
            label="Stop"
            unit="Hz"
            value={s.stopHz}
            format={(v) => formatHertz(v)}
            onCommit={(stopHz) => change({ stopHz })}
          />
          ,{" "}
          <QuantityField
            label="Points"
            unit=""
            whole
            value={s.points}
            next={(v, up) => Math.max(2, Math.min(20001, up ? 2 * v - 1 : Math.ceil(v / 2)))}
            onCommit={(points) => change({ points })}
          />{" "}
          points
        </>
      )}
      ,{" "}
      <Choice
        label="Steps of the sweep"
        value={s.type}
        choices={TYPES}
        onChange={(type) =>
          type === "SEGMENTS" ? setSegments(true) : change({ type: type as typeof s.type })
        }
      />
      <br />
      IF bandwidth{" "}
      <QuantityField
        label="IF bandwidth"
        unit="Hz"
        value={s.bandwidthHz}
        onCommit={(bandwidthHz) => change({ bandwidthHz })}
      />
      , average{" "}
      <QuantityField
        label="Averages"
        unit=""
        whole
        value={s.averages}
        next={(v, up) => Math.max(1, Math.round(step125(v, up)))}
        onCommit={(averages) => change({ averages })}
      />
      <br />
      port power{" "}
      <QuantityField
        label="Port power"
        unit="dBm"
        value={s.powerDbm}
        format={(v) => `${signed(v)} dBm`}
        next={(v, up) => v + (up ? 1 : -1)}
        onCommit={(powerDbm) => change({ powerDbm })}
      />
      ,{" "}
      <Choice
        label="Sending ports"
        value={s.bothPorts ? "both" : "one"}
        choices={{ both: "both ports send", one: "port 1 sends" }}
        onChange={(v) => change({ bothPorts: v === "both" })}
      />
      {segments && <SegmentsEditor model={model} onClose={() => setSegments(false)} />}
    </div>
  );
}

const MARK: Record<string, "done" | "attention" | "open"> = {
  VALID: "done",
  INTERPOLATED: "done",
  NONE: "open",
};

const WHEN = { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" } as const;

/** Which calibration is used, and the way to a new one. */
export function CalibrationStep({ model }: { model: NetworkModel }) {
  const { facts: state, use } = model.analyzer;
  const queries = useQueryClient();
  const { data: calibrations = [] } = useQuery({
    queryKey: ["calibrations"],
    queryFn: () => api.get<Calibration[]>("/api/calibrations"),
  });
  if (!state) {
    return null;
  }
  const under = state.calibrating;
  const kept = calibrations.find((c) => c.id === state.calibrationId);
  const missing = under?.steps.filter((s) => !s.measured && !s.optional).length ?? 0;
  return (
    <Step
      title="Calibrate"
      state={under ? "attention" : (MARK[state.trust] ?? "attention")}
      aside={
        <Button size="compact-xs" variant="subtle" onClick={() => model.setDialog("calibrate")}>
          {under ? `go on (${missing} to do)` : "Calibrate"}
        </Button>
      }
    >
      <Select
        size="xs"
        aria-label="Calibration in use"
        placeholder="no calibration: raw ratios"
        clearable
        data={calibrations.map((c) => ({ value: String(c.id), label: c.name }))}
        value={state.calibrationId === null ? null : String(state.calibrationId)}
        onChange={(v) => use(v ? Number(v) : null)}
      />
      {kept && (
        <div className={desk.small} data-testid="calibration-made">
          made {new Date(kept.madeAtMillis).toLocaleString("en-GB", WHEN)}:{" "}
          {formatHertz(kept.sweep.startHz)} to {formatHertz(kept.sweep.stopHz)},{" "}
          {signed(kept.sweep.powerDbm)} dBm, {kept.kit}
        </div>
      )}
      <div className={desk.small} data-testid="trust">
        {state.trustText}
        {state.trustWhy && `. ${state.trustWhy}`}
        {state.calibrationId !== null && (
          <ConfirmButton
            ml={4}
            size="compact-xs"
            question="Forget it for good?"
            onConfirm={async () => {
              const id = state.calibrationId;
              await use(null);
              await api.remove(`/api/calibrations/${id}`);
              await queries.invalidateQueries({ queryKey: ["calibrations"] });
            }}
          >
            forget it
          </ConfirmButton>
        )}
      </div>
      {model.dialog === "calibrate" && (
        <CalibratePanel model={model} onClose={() => model.setDialog("")} />
      )}
    </Step>
  );
}
