import { Alert, Button, Group, Modal, Stack, Text, TextInput } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job } from "../api/client";

/** Makes a job, or renames, archives and removes the one that is given. */
export function JobDialog(props: {
  job?: Job;
  onClose: () => void;
  onMade?: (id: number) => void;
}) {
  const { job, onClose } = props;
  const queries = useQueryClient();
  const [name, setName] = useState(job?.name ?? "");
  const [dut, setDut] = useState(job?.dut ?? "");
  const [wrong, setWrong] = useState("");
  /** What hangs on the job, once its removal was asked for. */
  const [belongings, setBelongings] = useState<string | null>(null);
  const attempt = async (work: () => Promise<unknown>, close = true) => {
    try {
      await work();
      await queries.invalidateQueries({ queryKey: ["jobs"] });
      if (close) {
        onClose();
      }
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const done = () =>
    attempt(async () => {
      if (job) {
        await api.patch(`/api/jobs/${job.id}`, { name, dut });
      } else {
        props.onMade?.((await api.post<Job>("/api/jobs", { name, dut })).id);
      }
    });
  return (
    <Modal opened onClose={onClose} title={job ? "The job" : "New job"}>
      <Stack>
        <TextInput
          label="Name of the job"
          placeholder="Outer buoy, yearly check"
          data-autofocus
          value={name}
          error={wrong}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <TextInput
          label="Device under test"
          description="Limits that name no part hold for it."
          value={dut}
          onChange={(e) => setDut(e.currentTarget.value)}
        />
        <Button onClick={done}>{job ? "Store the names" : "Make the job"}</Button>
        {job && (
          <Group justify="space-between">
            <Button
              variant="default"
              onClick={() =>
                attempt(() => api.patch(`/api/jobs/${job.id}`, { archived: !job.archived }))
              }
            >
              {job.archived ? "Bring it back from the archive" : "Put it into the archive"}
            </Button>
            <Button
              variant="subtle"
              color="red"
              onClick={() =>
                attempt(async () => {
                  const said = await api.get<{ words: string }>(`/api/jobs/${job.id}/belongings`);
                  setBelongings(said.words);
                }, false)
              }
            >
              Remove it ...
            </Button>
          </Group>
        )}
        {job && belongings !== null && (
          <Alert color="red" p={8}>
            <Text fz="sm">
              {belongings ? `With it go, for good: ${belongings}.` : "Nothing hangs on it."}
            </Text>
            <Button
              mt={6}
              size="compact-sm"
              color="red"
              onClick={() => attempt(() => api.remove(`/api/jobs/${job.id}?belongings=true`))}
            >
              Remove {job.name}
            </Button>
          </Alert>
        )}
      </Stack>
    </Modal>
  );
}
