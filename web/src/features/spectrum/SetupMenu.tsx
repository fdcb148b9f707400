import { Button, Menu, TextInput } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type Job, Problem, type SpectrumSettings } from "../../api/client";
import { download } from "../../components/plotExport";
import { FormModal } from "./FormModal";
import type { SpectrumModel } from "./useSpectrum";

interface Measurement {
  kind: string;
  settings: { default: SpectrumSettings };
}

interface Setup {
  id: number;
  name: string;
  settings: SpectrumSettings;
}

/** Ways of working: named setups of the job, settings as a file, and the factory state. */
export function SetupMenu({ job, model }: { job: Job; model: SpectrumModel }) {
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [naming, setNaming] = useState(false);
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState("");
  const { data: setups = [] } = useQuery({
    queryKey: ["setups", job.id],
    queryFn: () => api.get<Setup[]>(`/api/jobs/${job.id}/setups`),
  });
  const settings = model.state?.settings;
  if (!settings) {
    return null;
  }
  const take = (wanted: SpectrumSettings) => model.change(wanted);
  const refuse = (e: unknown) => model.setProblem(e as Problem);
  const store = async () => {
    try {
      await api.post(`/api/jobs/${job.id}/setups`, { name, settings });
      await queries.invalidateQueries({ queryKey: ["setups", job.id] });
      setNaming(false);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const save = async () => {
    try {
      const text = await api.post<object>("/api/settings-file/write", { settings });
      download("settings.json", `${JSON.stringify(text, null, 2)}\n`, "application/json");
    } catch (e) {
      refuse(e);
    }
  };
  const read = async (chosen: File | undefined) => {
    if (!chosen) {
      return;
    }
    try {
      const file = await api.postText<{ measurement: string; settings: SpectrumSettings }>(
        "/api/settings-file/read",
        await chosen.text(),
      );
      if (file.measurement !== "spectrum") {
        throw new Problem(`it holds settings of "${file.measurement}"`, "settings", 0);
      }
      take(file.settings);
    } catch (e) {
      const p = e as Problem;
      refuse(new Problem(`${chosen.name}: ${p.message}`, "settings", p.status));
    }
  };
  return (
    <>
      <Menu position="bottom-start" withinPortal>
        <Menu.Target>
          <Button size="compact-xs" variant="subtle">
            Setups
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {setups.map((s) => (
            <Menu.Item key={s.id} onClick={() => take(s.settings)}>
              {s.name}
            </Menu.Item>
          ))}
          {setups.length > 0 && <Menu.Divider />}
          <Menu.Item
            onClick={() => {
              setName("");
              setWrong("");
              setNaming(true);
            }}
          >
            Keep these settings as ...
          </Menu.Item>
          <Menu.Item onClick={save}>Save to a file</Menu.Item>
          <Menu.Item onClick={() => file.current?.click()}>Read from a file ...</Menu.Item>
          <Menu.Item
            onClick={() =>
              api.get<Measurement[]>("/api/measurements").then((all) => {
                const first = all.find((m) => m.kind === "spectrum");
                return first && take(first.settings.default);
              }, refuse)
            }
          >
            Back to the first settings
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        aria-label="Settings file"
        hidden
        onChange={(e) => {
          read(e.currentTarget.files?.[0]);
          e.currentTarget.value = "";
        }}
      />
      {naming && (
        <FormModal
          title="Keep these settings for this job"
          done="Keep them"
          wrong={wrong}
          onClose={() => setNaming(false)}
          onDone={store}
        >
          <TextInput
            label="Name of the setup"
            data-autofocus
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
        </FormModal>
      )}
    </>
  );
}
