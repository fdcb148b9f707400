import { Alert, Button, FileInput, Group, Modal, Stack, Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Recording } from "../../api/client";

/** Opens a SigMF pair or a WAV file from disk. */
export function OpenRecording(props: { onClose: () => void; onOpened: (source: string) => void }) {
  const queries = useQueryClient();
  const [files, setFiles] = useState<File[]>([]);
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const meta = files.find((f) => f.name.endsWith("-meta") || f.name.endsWith(".json"));
  const data = files.find((f) => f !== meta);

  const open = async () => {
    setBusy(true);
    setWrong("");
    try {
      const form = new FormData();
      if (meta) {
        form.append("meta", meta);
      }
      if (data) {
        form.append("data", data);
      }
      const recording = await api.post<Recording>("/api/recordings", form);
      await queries.invalidateQueries({ queryKey: ["recordings"] });
      props.onOpened(`r${recording.id}`);
    } catch (e) {
      setWrong((e as Error).message);
    } finally {
      setBusy(false);
    }
  };

  return (
    <Modal opened onClose={props.onClose} title="Open a recording">
      <Stack>
        <Text fz="sm">
          Choose both files of a SigMF recording, the .sigmf-meta and the .sigmf-data file; or one
          .wav file, of one channel or of I and Q.
        </Text>
        <FileInput
          multiple
          label="Files"
          placeholder="Choose two files, or one .wav"
          value={files}
          onChange={(f) => {
            setFiles(f);
            setWrong("");
          }}
        />
        {wrong && (
          <Alert color="red" variant="light" title="Not opened">
            {wrong}
          </Alert>
        )}
        <Group justify="flex-end">
          <Button variant="default" onClick={props.onClose}>
            Leave it
          </Button>
          <Button loading={busy} disabled={files.length === 0} onClick={open}>
            Open
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
