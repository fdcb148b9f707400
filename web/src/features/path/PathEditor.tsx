import {
  ActionIcon,
  Alert,
  Button,
  Checkbox,
  FileButton,
  Group,
  Modal,
  SegmentedControl,
  Select,
  SimpleGrid,
  Stack,
  Text,
  Textarea,
  TextInput,
} from "@mantine/core";
import { IconArrowLeft, IconArrowRight, IconPlus, IconTrash } from "@tabler/icons-react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Instrument, type Job, type PathElement, Problem } from "../../api/client";
import { formatHertz, parseQuantity } from "../../components/units";
import { GainFile } from "./GainFile";

const KINDS = [
  ["PAD", "Pad"],
  ["CABLE", "Cable"],
  ["ADAPTER", "Adapter"],
  ["PROBE", "Probe"],
  ["AMPLIFIER", "Amplifier"],
  ["FILTER", "Filter"],
  ["MIXER", "Mixer"],
  ["CONVERTER", "Digital converter"],
  ["COMBINER", "Combiner"],
  ["DUT", "Device under test"],
] as const;

/** Kinds of instruments that an element may be: what sends, what is plugged, what reads. */
const LINKS: Partial<Record<PathElement["kind"], Instrument["kind"][]>> = {
  SOURCE: ["SIGNAL_SOURCE", "SIGNAL_GENERATOR", "NOISE_SOURCE", "FUNCTION_SOURCE"],
  DUT: ["PART_HOLDER"],
  COMBINER: ["SIGNAL_GENERATOR", "SIGNAL_SOURCE"],
  PORT: ["IQ_RECEIVER", "SWEPT_ANALYZER", "TESTED_RECEIVER"],
};

const LINKED_AS: Partial<Record<PathElement["kind"], string>> = {
  PORT: "Instrument",
  COMBINER: "At its other input",
};

/** An element with its numbers as they are being typed. */
interface Draft {
  element: PathElement;
  texts: Record<string, string>;
  key: number;
}

type NumberField =
  | "gainDb"
  | "toleranceDb"
  | "highestLevelDbm"
  | "damageLevelDbm"
  | "returnLossDb"
  | "outputLevelDbm"
  | "sideGainDb"
  | "shiftHz"
  | "supplyLowestVolts"
  | "supplyHighestVolts"
  | "supplyDamageVolts";

const FIELDS: [NumberField, string, string][] = [
  ["gainDb", "Gain (dB, a loss is negative)", "dB"],
  ["sideGainDb", "Gain from its other input (dB)", "dB"],
  ["toleranceDb", "Tolerance (± dB)", "dB"],
  ["outputLevelDbm", "Expected level (dBm)", "dBm"],
  ["highestLevelDbm", "Highest linear level in (dBm)", "dBm"],
  ["damageLevelDbm", "Damage level in (dBm)", "dBm"],
  ["returnLossDb", "Return loss (dB)", "dB"],
  ["shiftHz", "Frequency shift (Hz)", "Hz"],
  ["supplyLowestVolts", "Supply that it works from (V)", "V"],
  ["supplyHighestVolts", "Supply that it works to (V)", "V"],
  ["supplyDamageVolts", "Supply that it must not see (V)", "V"],
];

/** Fields of a source that its instrument feeds, instead of being it. */
const isSupply = (field: NumberField) => field.startsWith("supply");

let nextKey = 1;

function draftOf(element: PathElement): Draft {
  const texts: Record<string, string> = {};
  for (const [field, , unit] of FIELDS) {
    const value = element[field];
    texts[field] = value === null ? "" : unit === "Hz" ? formatHertz(value) : String(value);
  }
  return { element, texts, key: nextKey++ };
}

function usesField(kind: PathElement["kind"], field: NumberField): boolean {
  if (kind === "SOURCE") {
    return field === "outputLevelDbm" || field === "returnLossDb" || isSupply(field);
  }
  if (isSupply(field)) {
    return false;
  }
  if (kind === "PORT") {
    return field === "highestLevelDbm" || field === "damageLevelDbm" || field === "returnLossDb";
  }
  if (field === "sideGainDb") {
    return kind === "COMBINER";
  }
  if (field === "shiftHz") {
    return kind === "MIXER" || kind === "CONVERTER";
  }
  return field !== "outputLevelDbm" || kind === "COMBINER";
}

/** The number typed, null for an empty field; throws a Problem if it is neither. */
function typed(draft: Draft, field: NumberField, unit: string): number | null {
  const text = draft.texts[field].trim();
  if (!usesField(draft.element.kind, field) || text === "") {
    return field === "toleranceDb" ? 0 : null;
  }
  const value = parseQuantity(text, unit);
  if (value === null) {
    throw new Problem(`"${text}" is not a number. Correct it, or leave the field empty.`, field, 0);
  }
  return value;
}

interface Props {
  job: Job;
  first: number;
  instruments: Instrument[];
  onClose: () => void;
}

/** Edit, add, remove and reorder the elements of a path; nothing changes until it is stored. */
export function PathEditor({ job, first, instruments, onClose }: Props) {
  const queries = useQueryClient();
  const [drafts, setDrafts] = useState(() => job.path.elements.map(draftOf));
  const [chosen, setChosen] = useState(Math.min(first, drafts.length - 1));
  const [error, setError] = useState<{ text: string; field: string } | null>(null);
  const draft = drafts[chosen];
  const kind = draft.element.kind;
  const fixed = kind === "SOURCE" || kind === "PORT";

  const change = (element: Partial<PathElement>, texts: Record<string, string> = {}) => {
    setError(null);
    setDrafts(
      drafts.map((d, i) =>
        i === chosen
          ? { ...d, element: { ...d.element, ...element }, texts: { ...d.texts, ...texts } }
          : d,
      ),
    );
  };
  const add = () => {
    const pad = draftOf({
      name: "Pad 10 dB",
      kind: "PAD",
      gainKind: "number",
      gainDb: -10,
      gainTable: "",
      shiftHz: null,
      toleranceDb: 0.3,
      highestLevelDbm: null,
      damageLevelDbm: null,
      dcAllowed: true,
      returnLossDb: 26,
      outputLevelDbm: null,
      instrumentId: null,
      networkId: null,
      sideGainDb: null,
      supplyLowestVolts: null,
      supplyHighestVolts: null,
      supplyDamageVolts: null,
    });
    const at = Math.min(chosen + 1, drafts.length - 1);
    setDrafts([...drafts.slice(0, at), pad, ...drafts.slice(at)]);
    setChosen(at);
  };
  const move = (by: number) => {
    const to = chosen + by;
    if (to < 1 || to > drafts.length - 2) {
      return;
    }
    const moved = [...drafts];
    [moved[chosen], moved[to]] = [moved[to], moved[chosen]];
    setDrafts(moved);
    setChosen(to);
  };
  const remove = () => {
    setDrafts(drafts.filter((_, i) => i !== chosen));
    setChosen(chosen - 1);
    setError(null);
  };
  const store = async () => {
    try {
      const elements = drafts.map((d, i) => {
        try {
          const numbers = Object.fromEntries(FIELDS.map(([f, , u]) => [f, typed(d, f, u)]));
          return { ...d.element, ...numbers } as PathElement;
        } catch (e) {
          setChosen(i);
          throw e;
        }
      });
      const readingPlane = Math.min(job.path.readingPlane, elements.length - 2);
      await api.put(`/api/jobs/${job.id}/path`, { ...job.path, elements, readingPlane });
      await Promise.all([
        queries.invalidateQueries({ queryKey: ["jobs"] }),
        queries.invalidateQueries({ queryKey: ["plan"] }),
      ]);
      onClose();
    } catch (e) {
      const problem = e as Problem;
      setError({ text: problem.message, field: problem.field ?? "" });
    }
  };
  const errorAt = (field: string) => (error?.field === field ? error.text : undefined);
  const linked = LINKS[kind];
  const fed = instruments.some(
    (i) => i.kind === "FUNCTION_SOURCE" && i.id === draft.element.instrumentId,
  );

  return (
    <Modal opened onClose={onClose} title={`Path of "${job.name}"`} size="xl">
      <Stack gap="sm">
        <Group gap={6} wrap="wrap" role="tablist" aria-label="Elements">
          {drafts.map((d, i) => (
            <Button
              key={d.key}
              role="tab"
              aria-selected={i === chosen}
              size="compact-sm"
              variant={i === chosen ? "filled" : "default"}
              onClick={() => setChosen(i)}
            >
              {d.element.name || "(no name)"}
            </Button>
          ))}
        </Group>
        <Group gap={6}>
          <Button
            size="compact-sm"
            variant="light"
            leftSection={<IconPlus size={15} />}
            onClick={add}
          >
            Add after
          </Button>
          <ActionIcon
            variant="default"
            aria-label="Move towards the source"
            disabled={fixed}
            onClick={() => move(-1)}
          >
            <IconArrowLeft size={16} />
          </ActionIcon>
          <ActionIcon
            variant="default"
            aria-label="Move towards the instrument"
            disabled={fixed}
            onClick={() => move(1)}
          >
            <IconArrowRight size={16} />
          </ActionIcon>
          <Button
            size="compact-sm"
            variant="light"
            color="red"
            leftSection={<IconTrash size={15} />}
            disabled={fixed}
            onClick={remove}
          >
            Remove
          </Button>
        </Group>
        <SimpleGrid cols={3} spacing="sm" verticalSpacing="xs">
          <TextInput
            label="Name"
            data-autofocus
            value={draft.element.name}
            error={errorAt("name")}
            onChange={(e) => change({ name: e.currentTarget.value })}
          />
          {!fixed && (
            <Select
              label="Kind"
              allowDeselect={false}
              data={KINDS.map(([value, label]) => ({ value, label }))}
              value={kind}
              onChange={(v) => v && change({ kind: v as PathElement["kind"], instrumentId: null })}
            />
          )}
          {linked && (
            <Select
              label={fed ? "Fed by" : (LINKED_AS[kind] ?? "Switched at the Bench as")}
              placeholder="none"
              clearable
              data={instruments
                .filter((i) => linked.includes(i.kind))
                .map((i) => ({ value: String(i.id), label: i.name }))}
              value={
                draft.element.instrumentId === null ? null : String(draft.element.instrumentId)
              }
              onChange={(v) =>
                change(
                  { instrumentId: v ? Number(v) : null },
                  kind === "SOURCE"
                    ? { supplyLowestVolts: "", supplyHighestVolts: "", supplyDamageVolts: "" }
                    : {},
                )
              }
            />
          )}
          {FIELDS.filter(
            ([f]) =>
              usesField(kind, f) &&
              (fed || !isSupply(f)) &&
              !(f === "gainDb" && draft.element.gainKind !== "number"),
          ).map(([field, label]) => (
            <TextInput
              key={field}
              label={
                kind === "COMBINER" && field === "outputLevelDbm"
                  ? "Expected at its other input (dBm)"
                  : label
              }
              placeholder={field === "toleranceDb" ? "0" : "not known"}
              value={draft.texts[field]}
              error={errorAt(field)}
              styles={{ input: { fontFamily: "var(--mantine-font-family-monospace)" } }}
              onChange={(e) => change({}, { [field]: e.currentTarget.value })}
            />
          ))}
        </SimpleGrid>
        {kind === "PROBE" && draft.element.gainKind === "number" && (
          <Group gap={6}>
            <Text fz="sm">The probe divides</Text>
            {[1, 10].map((by) => (
              <Button
                key={by}
                size="compact-xs"
                variant="light"
                onClick={() => change({}, { gainDb: String(-20 * Math.log10(by) || 0) })}
              >
                {by}:1
              </Button>
            ))}
          </Group>
        )}
        {!fixed && (
          <Group align="center" gap="md">
            <SegmentedControl
              size="xs"
              aria-label="Gain as"
              data={[
                { value: "number", label: "one gain" },
                { value: "table", label: "table over frequency" },
                { value: "file", label: "Touchstone file" },
              ]}
              value={draft.element.gainKind}
              onChange={(v) => change({ gainKind: v })}
            />
            <Checkbox
              size="sm"
              label="bears dc"
              checked={draft.element.dcAllowed}
              onChange={(e) => change({ dcAllowed: e.currentTarget.checked })}
            />
          </Group>
        )}
        {!fixed && draft.element.gainKind === "table" && (
          <Stack gap={4}>
            <Textarea
              label="Gain table: a line each, frequency and gain in dB"
              placeholder={"400M, -1.10\n458M, -1.20\n500M, -1.27"}
              rows={5}
              error={errorAt("gain")}
              styles={{ input: { fontFamily: "var(--mantine-font-family-monospace)" } }}
              value={draft.element.gainTable}
              onChange={(e) => change({ gainTable: e.currentTarget.value })}
            />
            <FileButton
              accept=".csv,text/csv,text/plain"
              onChange={async (file) => file && change({ gainTable: await file.text() })}
            >
              {(p) => (
                <Button {...p} size="compact-sm" variant="light" w="fit-content">
                  Read a CSV file
                </Button>
              )}
            </FileButton>
          </Stack>
        )}
        {!fixed && draft.element.gainKind === "file" && (
          <GainFile
            networkId={draft.element.networkId}
            error={errorAt("networkId") ?? errorAt("gain")}
            onChange={(networkId) => change({ networkId })}
          />
        )}
        {error && (
          <Alert color="red" variant="light">
            {error.text}
          </Alert>
        )}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Leave as it was
          </Button>
          <Button onClick={store}>Store the path</Button>
        </Group>
      </Stack>
    </Modal>
  );
}
