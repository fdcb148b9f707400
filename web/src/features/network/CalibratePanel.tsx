import {
  Alert,
  Button,
  Checkbox,
  FileButton,
  Group,
  Modal,
  Progress,
  Select,
  Stack,
  Text,
  TextInput,
} from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import { BrokenFiles } from "../../components/BrokenFiles";
import { formatHertz, parseQuantity } from "../../components/units";
import desk from "../../desk/Desk.module.css";
import classes from "./NetworkPage.module.css";
import { Plugged } from "./Plugged";
import type { NetworkModel } from "./useNetworks";

const METHODS = [
  { value: "TWO_PORT", label: "both ports and through: all is put right" },
  { value: "UNKNOWN_THROUGH", label: "both ports and any adapter as through" },
  { value: "ENHANCED_RESPONSE", label: "one port and through: S11 and S21 are put right" },
  { value: "ONE_PORT", label: "one port: open, short, load at port 1" },
  { value: "THROUGH_RESPONSE", label: "through alone: only the transmission is put right" },
];

const KINDS = ["OPEN", "SHORT", "LOAD"];

/** The way through a calibration, and afterwards its verification. */
export function CalibratePanel({ model, onClose }: { model: NetworkModel; onClose: () => void }) {
  const under = model.analyzer.facts?.calibrating;
  return (
    <Modal opened onClose={onClose} title="Calibrate" size="xl">
      {under ? <Measuring model={model} onClose={onClose} /> : <Begin model={model} />}
    </Modal>
  );
}

function Begin({ model }: { model: NetworkModel }) {
  const [method, setMethod] = useState("TWO_PORT");
  const [kit, setKit] = useState("bench-box");
  const [files, setFiles] = useState<Record<string, number>>({});
  const [delay, setDelay] = useState("0 s");
  const { data: kits = [] } = useQuery({
    queryKey: ["kits"],
    queryFn: () => api.get<{ id: string; label: string }[]>("/api/kits"),
  });
  const s = model.analyzer.sweep;
  const onePorts = (model.files ?? [])
    .filter((f) => f.ports === 1)
    .map((f) => ({ value: String(f.id), label: f.name }));
  const seconds = parseQuantity(delay, "s");
  return (
    <Stack gap="sm">
      {s && (
        <Text fz="sm">
          It is made with the sweep as it is set now: {formatHertz(s.startHz)} to{" "}
          {formatHertz(s.stopHz)}, {s.points} points, IF bandwidth {formatHertz(s.bandwidthHz)},{" "}
          {s.powerDbm} dBm. It holds for narrower sweeps as well.
        </Text>
      )}
      <Select
        label="What is put right"
        allowDeselect={false}
        data={METHODS}
        value={method}
        onChange={(v) => v && setMethod(v)}
      />
      <Group gap="xs" align="flex-end" wrap="nowrap">
        <Select
          flex={1}
          label="Standards"
          allowDeselect={false}
          data={kits.map((k) => ({ value: k.id, label: k.label }))}
          value={kit}
          onChange={(v) => v && setKit(v)}
        />
        <FileButton
          accept=".yaml,.yml"
          onChange={async (file) => {
            const added = file && (await model.analyzer.addKit(file));
            if (added) {
              setKit(added);
            }
          }}
        >
          {(p) => (
            <Button variant="default" {...p}>
              Add a kit file
            </Button>
          )}
        </FileButton>
      </Group>
      <BrokenFiles folder="kits" />
      {onePorts.length > 0 && (
        <Group gap="xs" grow>
          {KINDS.map((k) => (
            <Select
              key={k}
              size="xs"
              label={`${k.toLowerCase()} from a file`}
              placeholder="as the kit says"
              clearable
              data={onePorts}
              value={String(files[k] ?? "") || null}
              onChange={(v) => {
                const { [k]: _, ...rest } = files;
                setFiles(v ? { ...rest, [k]: Number(v) } : rest);
              }}
            />
          ))}
        </Group>
      )}
      {method === "UNKNOWN_THROUGH" && (
        <TextInput
          label="Rough delay of the adapter"
          description="to a quarter period of the lowest frequency; it tells the sign only"
          value={delay}
          error={seconds === null && "Write it as 180p or 0 s."}
          onChange={(e) => setDelay(e.currentTarget.value)}
        />
      )}
      {model.analyzer.problem && (
        <Alert color="red" p={8}>
          {model.analyzer.problem.message}
        </Alert>
      )}
      <Group justify="space-between">
        {model.analyzer.facts?.calibrationId != null ? <Verify model={model} /> : <span />}
        <Button
          disabled={seconds === null}
          onClick={() => model.analyzer.calibrate(method, kit, files, seconds ?? 0)}
        >
          Begin
        </Button>
      </Group>
    </Stack>
  );
}

function Measuring({ model, onClose }: { model: NetworkModel; onClose: () => void }) {
  const { analyzer } = model;
  const [name, setName] = useState("");
  const [off, setOff] = useState(false);
  const state = analyzer.facts;
  const under = state?.calibrating;
  if (!state || !under) {
    return null;
  }
  const needed = under.steps.filter((s) => !s.optional);
  const done = needed.filter((s) => s.measured).length;
  return (
    <Stack gap="sm">
      <Text fz="sm">
        {under.methodText}, {under.kit}. Any order will do; each can be measured again.
      </Text>
      <Progress.Root size={22}>
        <Progress.Section value={(100 * done) / needed.length} aria-label="Steps done">
          <Progress.Label>
            {done} of {needed.length}
          </Progress.Label>
        </Progress.Section>
      </Progress.Root>
      {under.partQuestion && (
        <Alert color="yellow" p={8}>
          <Text fz="sm">{under.partQuestion}</Text>
          <Checkbox
            size="sm"
            mt={4}
            label="the part is off, only standards are on the ports"
            checked={off}
            onChange={(e) => {
              setOff(e.currentTarget.checked);
              analyzer.setProblem(null);
            }}
          />
        </Alert>
      )}
      <Group align="flex-start" wrap="nowrap" gap="xl">
        <div style={{ flex: 1 }}>
          {under.steps.map((s) => (
            <div key={s.step} className={classes.choice} data-testid={`step-${s.step}`}>
              <Button
                size="xs"
                w={250}
                justify="flex-start"
                variant={s.measured ? "default" : "filled"}
                disabled={under.measuring !== null && under.measuring !== s.step}
                loading={under.measuring === s.step}
                onClick={() => analyzer.measure(s.step, off)}
              >
                {s.label}
              </Button>
              <Text fz="sm" fw={600}>
                {s.doubt ? "\u2717 not taken" : s.measured ? "\u2713 measured" : "\u25CB"}
              </Text>
              {s.doubt && <div className={desk.mark}>{s.doubt}</div>}
            </div>
          ))}
        </div>
        <div style={{ width: 210 }}>
          <Plugged model={model} />
          {under.measuring !== null && state.progress < 1 && (
            <Text fz="sm" mt={8}>
              sweep {Math.round(100 * state.progress)} %, {state.remainingSeconds.toFixed(1)} s left
            </Text>
          )}
        </div>
      </Group>
      {analyzer.problem && (
        <Alert color="red" p={8}>
          {analyzer.problem.message}
        </Alert>
      )}
      <Group justify="space-between" align="flex-end">
        <Button variant="default" onClick={() => analyzer.drop()}>
          Drop it
        </Button>
        <Group align="flex-end">
          <TextInput
            aria-label="Name of the calibration"
            placeholder="name, or leave it empty"
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <Button
            disabled={!under.complete}
            onClick={async () => {
              if (await analyzer.finish(name)) {
                onClose();
              }
            }}
          >
            Keep and use it
          </Button>
        </Group>
      </Group>
    </Stack>
  );
}

const CHECKS = [
  { value: "OPEN 1", label: "open at port 1" },
  { value: "SHORT 1", label: "short at port 1" },
  { value: "LOAD 1", label: "load at port 1" },
  { value: "OPEN 2", label: "open at port 2" },
  { value: "SHORT 2", label: "short at port 2" },
  { value: "LOAD 2", label: "load at port 2" },
  { value: "RIPPLE 1", label: "ripple of an open line at port 1" },
  { value: "RIPPLE 2", label: "ripple of an open line at port 2" },
  { value: "THROUGH 0", label: "through" },
  { value: "FILE 0", label: "a part whose file is known" },
];

/** Judges the calibration by what is plugged in now, from the newest sweep. */
export function Verify({ model }: { model: NetworkModel }) {
  const [what, setWhat] = useState("OPEN 1");
  const [file, setFile] = useState<string | null>(null);
  const { verdict, verify } = model.analyzer;
  const [kind, port] = what.split(" ");
  return (
    <div>
      <Group gap="xs" align="flex-end">
        <Select
          size="xs"
          w={220}
          label="Verify with what is plugged in now"
          aria-label="Verify with"
          allowDeselect={false}
          data={CHECKS}
          value={what}
          onChange={(v) => v && setWhat(v)}
        />
        {kind === "FILE" && (
          <Select
            size="xs"
            w={180}
            aria-label="File of the known part"
            data={(model.files ?? [])
              .filter((f) => f.ports === 2)
              .map((f) => ({ value: String(f.id), label: f.name }))}
            value={file}
            onChange={setFile}
          />
        )}
        <Button
          size="xs"
          variant="default"
          onClick={() => verify(kind, Number(port), file ? Number(file) : null)}
        >
          Verify
        </Button>
      </Group>
      {verdict && (
        <Text fz="sm" fw={600} c={verdict.good ? undefined : "var(--fail)"} data-testid="verified">
          {verdict.good ? "\u2713" : "\u2717"} {verdict.words}
        </Text>
      )}
    </div>
  );
}
