import { Alert, Button, Group, Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import type { components } from "../api/schema";

type Found = components["schemas"]["Found"];

/** Files that the database does not know, and the offer to read them in. */
export function FoundFiles(props: { found: Found[]; onLater: () => void }) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const readable = props.found.filter((f) => f.readable);
  const lost = props.found.length - readable.length;

  const readIn = async () => {
    setBusy(true);
    setWrong("");
    for (const f of readable) {
      try {
        await api.post(`/api/found/${encodeURIComponent(f.name)}/read`);
      } catch (e) {
        setWrong(`${f.name}: ${(e as Error).message}`);
      }
    }
    setBusy(false);
    for (const key of ["found", "recordings", "networks"]) {
      await queries.invalidateQueries({ queryKey: [key] });
    }
  };

  return (
    <Alert
      color="yellow"
      title="Files that the database does not know"
      styles={{ title: { color: "var(--ink)" } }}
    >
      <Text fz="sm">
        {words(props.found, "recording")} and {words(props.found, "network")} lie in the folder
        &quot;found&quot; of the data. They are as they were; their runs are not.
      </Text>
      {lost > 0 && (
        <Text fz="sm">
          {lost} {lost === 1 ? "recording has" : "recordings have"} lost the metadata: open the
          samples with a metadata file of your own.
        </Text>
      )}
      {wrong && (
        <Text fz="sm" c="red">
          {wrong}
        </Text>
      )}
      <Group justify="flex-end" gap="xs" mt="xs">
        <Button size="xs" variant="default" onClick={props.onLater}>
          Later
        </Button>
        {readable.length > 0 && (
          <Button size="xs" loading={busy} onClick={readIn}>
            Read them in
          </Button>
        )}
      </Group>
    </Alert>
  );
}

const words = (found: Found[], what: string) => {
  const count = found.filter((f) => f.what === what).length;
  return `${count} ${what}${count === 1 ? "" : "s"}`;
};
