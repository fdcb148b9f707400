import { Button, FileButton, Group, Select, Text } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type NetworkSummary } from "../../api/client";
import { formatHertz } from "../../components/units";

interface Props {
  networkId: number | null;
  error?: string;
  onChange: (networkId: number | null) => void;
}

/** Chooses the Touchstone file whose S21 is the gain of an element, or opens a new one. */
export function GainFile({ networkId, error, onChange }: Props) {
  const queries = useQueryClient();
  const [refused, setRefused] = useState("");
  const { data: networks = [] } = useQuery({
    queryKey: ["networks"],
    queryFn: () => api.get<NetworkSummary[]>("/api/networks"),
  });
  const chosen = networks.find((n) => n.id === networkId);
  const open = async (file: File | null) => {
    if (!file) {
      return;
    }
    const form = new FormData();
    form.append("file", file);
    try {
      const made = await api.post<NetworkSummary>("/api/networks", form);
      await queries.invalidateQueries({ queryKey: ["networks"] });
      setRefused("");
      onChange(made.id);
    } catch (e) {
      setRefused((e as Error).message);
    }
  };
  return (
    <div>
      <Group align="flex-end" gap="sm">
        <Select
          label="Gain from S21 of"
          placeholder={networks.length ? "choose a file" : "no file opened yet"}
          flex={1}
          data={networks
            .filter((n) => n.ports > 1)
            .map((n) => ({ value: String(n.id), label: n.name }))}
          value={chosen ? String(chosen.id) : null}
          error={refused || error}
          onChange={(v) => onChange(v ? Number(v) : null)}
        />
        <FileButton onChange={open}>
          {(p) => (
            <Button {...p} variant="light">
              Open a Touchstone file
            </Button>
          )}
        </FileButton>
      </Group>
      {chosen && (
        <Text fz="xs" c="dimmed">
          {chosen.ports} ports, {chosen.points} points, {formatHertz(chosen.startHz)} to{" "}
          {formatHertz(chosen.stopHz)}
        </Text>
      )}
    </div>
  );
}
