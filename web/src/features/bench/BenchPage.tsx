import {
  Alert,
  Button,
  Group,
  Modal,
  NumberInput,
  SegmentedControl,
  Select,
  SimpleGrid,
  Stack,
  Switch,
  Text,
  Textarea,
  TextInput,
  Title,
} from "@mantine/core";
import { IconPlus } from "@tabler/icons-react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Instrument, type Job, type Problem } from "../../api/client";
import { ConfirmButton } from "../../components/ConfirmButton";
import { formatHertz, signed } from "../../components/units";
import classes from "./BenchPage.module.css";

export function useInstruments() {
  return useQuery({
    queryKey: ["instruments"],
    queryFn: () => api.get<Instrument[]>("/api/instruments"),
    refetchInterval: 1000,
  });
}

const STATE_WORDS: Record<Instrument["state"], string> = {
  DISCONNECTED: "\u25CB not connected",
  CONNECTING: "\u2026 connecting",
  CONNECTED: "\u2713 connected",
  BUSY: "\u25B6 busy: measuring",
  LOST: "\u2717 lost, trying again",
  ERROR: "\u26A0 error",
};

/** All instruments with their state, and what can be switched on them. */
export function BenchPage({ job }: { job: Job | undefined }) {
  const { data: instruments, error } = useInstruments();
  const [adding, setAdding] = useState(false);
  return (
    <div className={classes.page}>
      <Group mb="sm" justify="space-between">
        <Title order={3}>Bench</Title>
        <Button
          leftSection={<IconPlus size={16} />}
          variant="light"
          onClick={() => setAdding(true)}
        >
          Add an instrument
        </Button>
      </Group>
      {error && <Alert color="red">{error.message}</Alert>}
      {instruments?.length === 0 && (
        <Stack align="center" mt={80}>
          <Text>
            No instrument is known yet. Add one by its address, for example 192.168.1.20, port 5025.
          </Text>
          <Button onClick={() => setAdding(true)}>Add the first instrument</Button>
        </Stack>
      )}
      <SimpleGrid cols={{ base: 1, lg: 2 }} spacing="md">
        {instruments?.map((i) => (
          <InstrumentCard key={i.id} instrument={i} job={job} />
        ))}
      </SimpleGrid>
      {adding && <AddInstrument onClose={() => setAdding(false)} />}
    </div>
  );
}

function InstrumentCard({ instrument, job }: { instrument: Instrument; job: Job | undefined }) {
  const queries = useQueryClient();
  const [note, setNote] = useState("");
  const [wrong, setWrong] = useState("");
  const [errors, setErrors] = useState<string[] | null>(null);
  const url = `/api/instruments/${instrument.id}`;
  const off = instrument.state === "DISCONNECTED";

  const act = async (work: () => Promise<string>) => {
    setNote("");
    setWrong("");
    try {
      setNote(await work());
    } catch (e) {
      setWrong((e as Problem).message);
    }
    await queries.invalidateQueries({ queryKey: ["instruments"] });
    await queries.invalidateQueries({ queryKey: ["plan"] });
  };

  return (
    <section className={classes.card} data-state={instrument.state} aria-label={instrument.name}>
      <Group justify="space-between" wrap="nowrap">
        <div>
          <Text fw={600} fz="lg">
            {instrument.name}
          </Text>
          <Text fz="sm" c="dimmed">
            {instrument.kindLabel},{" "}
            <span className="figures">
              {instrument.host}:{instrument.port}
            </span>
            , dialect {instrument.dialect}
          </Text>
        </div>
        <Text className={classes.state}>{STATE_WORDS[instrument.state]}</Text>
      </Group>
      <Text fz="sm" mt={4}>
        {instrument.identity || "has not said who it is yet"}
      </Text>
      {instrument.message && (
        <Alert color="red" variant="light" mt={6} p={8}>
          {instrument.message}
        </Alert>
      )}
      {instrument.source && <SourceControls instrument={instrument} job={job} act={act} />}
      {instrument.attenuationDb !== null && (
        <Group mt="sm" gap="xs">
          <Text fz="sm">Pad</Text>
          <SegmentedControl
            aria-label="Pad"
            data={["0", "10", "20", "30", "40"].map((v) => ({ value: v, label: `${v} dB` }))}
            value={String(Math.round(instrument.attenuationDb))}
            onChange={(v) =>
              act(async () => {
                await api.put(`${url}/attenuation`, { attenuationDb: Number(v) });
                return `Switched to ${v} dB. Change the pad in the path as well.`;
              })
            }
          />
        </Group>
      )}
      {instrument.noise && (
        <Group mt="sm" gap="md">
          <Switch
            label="hot"
            checked={instrument.noise.hot}
            onChange={(e) => {
              const hot = e.currentTarget.checked;
              act(async () => {
                await api.put(`${url}/noise`, { hot });
                return "";
              });
            }}
          />
          <Text fz="sm" className="figures">
            excess noise ratio {instrument.noise.excessNoiseDb} dB
          </Text>
        </Group>
      )}
      {instrument.parts && (
        <Group mt="sm" gap="xs">
          <Text fz="sm">Plugged in</Text>
          <Select
            aria-label={`Plugged in at ${instrument.name}`}
            size="xs"
            allowDeselect={false}
            data={instrument.parts.names}
            value={instrument.parts.plugged}
            onChange={(part) =>
              part &&
              act(async () => {
                await api.put(`${url}/part`, { part });
                return `${part} is plugged in.`;
              })
            }
          />
        </Group>
      )}
      <Group mt="sm" gap={8}>
        <Button
          size="compact-sm"
          variant={off ? "filled" : "default"}
          onClick={() =>
            act(async () => {
              await api.post(`${url}/${off ? "connect" : "disconnect"}`);
              return "";
            })
          }
        >
          {off ? "Connect" : "Disconnect"}
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() =>
            act(async () => (await api.post<{ identity: string }>(`${url}/identify`)).identity)
          }
        >
          Identify
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() =>
            act(async () => {
              await api.post(`${url}/reset`);
              return "Reset to its own default state.";
            })
          }
        >
          Reset
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() =>
            act(async () => {
              setErrors((await api.get<{ errors: string[] }>(`${url}/errors`)).errors);
              return "";
            })
          }
        >
          Errors
        </Button>
        {instrument.kind === "IQ_RECEIVER" && (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              act(async () => {
                await api.post(`${url}/clear-protection`);
                return "The input is on again.";
              })
            }
          >
            Clear input protection
          </Button>
        )}
        <ConfirmButton
          size="compact-sm"
          question={`Forget ${instrument.name}`}
          onConfirm={() =>
            act(async () => {
              await api.remove(url);
              return "";
            })
          }
        >
          Remove
        </ConfirmButton>
      </Group>
      {note && (
        <Text fz="sm" mt={6} role="status">
          {note}
        </Text>
      )}
      {wrong && (
        <Alert color="red" variant="light" mt={6} p={8}>
          {wrong}
        </Alert>
      )}
      <Modal
        opened={errors !== null}
        onClose={() => setErrors(null)}
        title={`Errors of ${instrument.name}`}
      >
        {errors?.length ? (
          <Stack gap={4}>
            {errors.map((e, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same words may come twice
              <Text key={i} fz="sm" className="figures">
                {e}
              </Text>
            ))}
          </Stack>
        ) : (
          <Text>The error queue is empty.</Text>
        )}
      </Modal>
    </section>
  );
}

function SourceControls(props: {
  instrument: Instrument;
  job: Job | undefined;
  act: (work: () => Promise<string>) => void;
}) {
  const { instrument, job, act } = props;
  const [refused, setRefused] = useState<{ change: object; text: string } | null>(null);
  const [reason, setReason] = useState("");
  const source = instrument.source;
  if (!source) {
    return null;
  }
  const send = (change: object, overrideReason = "") =>
    act(async () => {
      const body = {
        on: null,
        modulated: null,
        driveHigh: null,
        jobId: job?.id ?? null,
        overrideReason,
        ...change,
      };
      try {
        await api.put(`/api/instruments/${instrument.id}/source`, body);
        setRefused(null);
        setReason("");
        return "";
      } catch (e) {
        const problem = e as Problem;
        if (problem.field === "levelPlan") {
          setRefused({ change, text: problem.message });
          return "";
        }
        throw e;
      }
    });
  return (
    <>
      <Group mt="sm" gap="lg">
        <Switch
          size="md"
          label={source.on ? "output on" : "output off"}
          checked={source.on}
          onChange={(e) => send({ on: e.currentTarget.checked })}
        />
        <SegmentedControl
          aria-label="Signal"
          data={[
            { value: "carrier", label: "carrier" },
            { value: "data", label: "data" },
          ]}
          value={source.modulated ? "data" : "carrier"}
          onChange={(v) => send({ modulated: v === "data" })}
        />
        <SegmentedControl
          aria-label="Drive"
          data={[
            { value: "normal", label: "drive normal" },
            { value: "high", label: "drive high" },
          ]}
          value={source.driveHigh ? "high" : "normal"}
          onChange={(v) => send({ driveHigh: v === "high" })}
        />
        <Text fz="sm" className="figures">
          {formatHertz(source.frequencyHz)}, {signed(source.levelDbm)} dBm nominal
        </Text>
      </Group>
      {refused && (
        <Alert color="red" variant="light" mt={6} title="Not switched">
          <Text fz="sm">{refused.text}</Text>
          <Group mt={6} align="flex-end">
            <Textarea
              aria-label="Reason"
              placeholder="Why do it all the same?"
              autosize
              value={reason}
              onChange={(e) => setReason(e.currentTarget.value)}
              style={{ flex: 1 }}
            />
            <Button
              size="xs"
              color="red"
              disabled={!reason.trim()}
              onClick={() => send(refused.change, reason)}
            >
              Switch all the same
            </Button>
            <Button size="xs" variant="default" onClick={() => setRefused(null)}>
              Leave it
            </Button>
          </Group>
        </Alert>
      )}
    </>
  );
}

function AddInstrument({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const { data: dialects } = useQuery({
    queryKey: ["dialects"],
    queryFn: () => api.get<{ byKind: Record<string, string[]> }>("/api/dialects"),
  });
  const [name, setName] = useState("");
  const [host, setHost] = useState("");
  const [port, setPort] = useState<number | string>(5025);
  const [kind, setKind] = useState<Instrument["kind"]>("IQ_RECEIVER");
  const [dialect, setDialect] = useState<string | null>(null);
  const [error, setError] = useState<Problem | null>(null);
  const choices = dialects?.byKind[kind] ?? [];
  const at = (field: string) => (error?.field === field ? error.message : undefined);
  const add = async () => {
    try {
      await api.post("/api/instruments", {
        name,
        host: host.trim(),
        port: Number(port) || 0,
        kind,
        dialect: dialect ?? choices[0] ?? "",
        connect: true,
      });
      await queries.invalidateQueries({ queryKey: ["instruments"] });
      onClose();
    } catch (e) {
      setError(e as Problem);
    }
  };
  return (
    <Modal opened onClose={onClose} title="Add an instrument">
      <Stack gap="sm">
        <TextInput
          label="Name"
          data-autofocus
          value={name}
          error={at("name")}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Group grow align="flex-start">
          <TextInput
            label="Host"
            placeholder="192.168.1.20"
            value={host}
            error={at("host")}
            onChange={(e) => setHost(e.currentTarget.value)}
          />
          <NumberInput
            label="Port"
            hideControls
            value={port}
            error={at("port")}
            onChange={(v) => setPort(v)}
          />
        </Group>
        <Group grow>
          <Select
            label="Kind"
            allowDeselect={false}
            data={[
              { value: "IQ_RECEIVER", label: "IQ receiver" },
              { value: "SWEPT_ANALYZER", label: "Swept analyzer" },
              { value: "SIGNAL_SOURCE", label: "Signal source" },
              { value: "STEP_ATTENUATOR", label: "Switched pad" },
            ]}
            value={kind}
            onChange={(v) => {
              setKind((v ?? "IQ_RECEIVER") as Instrument["kind"]);
              setDialect(null);
            }}
          />
          <Select
            label="Dialect"
            allowDeselect={false}
            data={choices}
            value={dialect ?? choices[0] ?? null}
            error={at("dialect")}
            onChange={setDialect}
          />
        </Group>
        {error && !["name", "host", "port", "dialect"].includes(error.field) && (
          <Alert color="red">{error.message}</Alert>
        )}
        <Button onClick={add}>Add and connect</Button>
      </Stack>
    </Modal>
  );
}
