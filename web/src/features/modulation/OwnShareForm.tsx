import { Select, Text } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job, type RunSummary } from "../../api/client";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";

/** Runs of carriers in all jobs, the newest first. */
function useCarrierRuns() {
  return useQuery({
    queryKey: ["runs", "carriers"],
    queryFn: async () => {
      const jobs = await api.get<Job[]>("/api/jobs");
      const runs = await Promise.all(
        jobs.map(async (job) => {
          const of = await api.get<RunSummary[]>(`/api/jobs/${job.id}/runs`);
          return of
            .filter((r) => r.kind === "single-carrier")
            .map((r) => ({ value: `${r.id}`, label: `${r.name}, ${job.name}`, at: r.keptAt }));
        }),
      );
      return runs.flat().sort((a, b) => b.at.localeCompare(a.at));
    },
  });
}

/** What is needed to tell whose the errors are. */
export function OwnShareForm(props: {
  model: { guide: (work: { kind: string; [field: string]: unknown }) => unknown };
  onClose: () => void;
}) {
  const { model, onClose } = props;
  const { data: runs = [] } = useCarrierRuns();
  const [run, setRun] = useState<string | null>(null);
  const draft = useDraft({ looks: "8" });
  const done = () =>
    draft.attempt(async () => {
      const looks = draft.number("looks", "") ?? 8;
      onClose();
      await model.guide({ kind: "own-share", looks, runId: run && Number(run) });
      return "";
    });
  return (
    <FormModal
      title="The receiver's own share"
      done="Start"
      wrong={draft.wrong}
      onClose={onClose}
      onDone={done}
    >
      <DraftField draft={draft} field="looks" label="Looks" first />
      <Select
        label="Seen by another receiver"
        description="A run of the same waveform, kept with the other receiver"
        placeholder={runs.length ? "none" : "no run of a carrier is kept yet"}
        data={runs}
        value={run}
        onChange={setRun}
        searchable
        clearable
        comboboxProps={{ withinPortal: true }}
      />
      <Text fz="sm">
        The source is switched off for as many looks, and on again. What repeats with the data is
        told from noise where the result is at least as long as the waveform.
      </Text>
    </FormModal>
  );
}
