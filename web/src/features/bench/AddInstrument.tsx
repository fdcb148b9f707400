import {
  Alert,
  Button,
  Group,
  Modal,
  NumberInput,
  Select,
  Stack,
  Text,
  TextInput,
} from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  api,
  type FoundInstrument,
  type Instrument,
  type InstrumentKind,
  type Problem,
} from "../../api/client";
import { BrokenFiles } from "../../components/BrokenFiles";

/** The address first: what answers there says what it is; all it says can be put right. */
export function AddInstrument({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const { data: kinds = [] } = useQuery({
    queryKey: ["instrument-kinds"],
    queryFn: () => api.get<InstrumentKind[]>("/api/instrument-kinds"),
  });
  const [host, setHost] = useState("");
  const [port, setPort] = useState<number | string>(5025);
  const [asking, setAsking] = useState(false);
  const [found, setFound] = useState<FoundInstrument | null>(null);
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Instrument["kind"] | null>(null);
  const [dialect, setDialect] = useState<string | null>(null);
  const [error, setError] = useState<Problem | null>(null);
  const dialects = kinds.find((k) => k.kind === kind)?.dialects ?? [];
  const at = (field: string) => (error?.field === field ? error.message : undefined);

  const find = async () => {
    setAsking(true);
    setError(null);
    setFound(null);
    try {
      const f = await api.post<FoundInstrument>("/api/instruments/find", {
        host: host.trim(),
        port: Number(port) || 0,
      });
      setFound(f);
      setName(f.name);
      setKind(f.kind);
      setDialect(f.dialect);
    } catch (e) {
      setError(e as Problem);
    }
    setAsking(false);
  };
  const add = async () => {
    try {
      await api.post("/api/instruments", {
        name,
        host: host.trim(),
        port: Number(port) || 0,
        kind,
        dialect: dialect ?? dialects[0]?.id ?? "",
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
        <Group grow align="flex-start">
          <TextInput
            label="Host"
            placeholder="192.168.1.20"
            data-autofocus
            value={host}
            error={at("host")}
            onChange={(e) => setHost(e.currentTarget.value)}
            onKeyDown={(e) => e.key === "Enter" && find()}
          />
          <NumberInput
            label="Port"
            hideControls
            value={port}
            error={at("port")}
            onChange={setPort}
            onKeyDown={(e) => e.key === "Enter" && find()}
          />
        </Group>
        <Button variant={kind ? "default" : "filled"} loading={asking} onClick={find}>
          Ask what it is
        </Button>
        {found && (
          <Text fz="sm" role="status">
            {found.identity
              ? `It says: ${found.identity}.`
              : "It answers, but does not say who it is. Choose its kind."}
            {found.identity && !found.kind && " No dialect knows it by name: choose its kind."}
          </Text>
        )}
        <TextInput
          label="Name"
          value={name}
          error={at("name")}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Group grow align="flex-start">
          <Select
            label="Kind"
            placeholder="choose"
            allowDeselect={false}
            data={kinds.map((k) => ({ value: k.kind, label: k.label }))}
            value={kind}
            error={at("kind")}
            onChange={(v) => {
              setKind(v as Instrument["kind"]);
              setDialect(null);
            }}
          />
          <Select
            label="Dialect"
            allowDeselect={false}
            data={dialects.map((d) => ({ value: d.id, label: d.label }))}
            value={dialect ?? dialects[0]?.id ?? null}
            error={at("dialect")}
            onChange={setDialect}
          />
        </Group>
        {error && !["name", "host", "port", "dialect", "kind"].includes(error.field) && (
          <Alert color="red">{error.message}</Alert>
        )}
        <BrokenFiles folder="dialects" />
        <Button disabled={!kind} onClick={add}>
          Add and connect
        </Button>
      </Stack>
    </Modal>
  );
}
