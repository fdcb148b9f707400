import { Button, Menu, TextInput } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type Job, Problem, type Tiles } from "../api/client";
import { download } from "../components/download";
import { later } from "../components/later";

const FormModal = later(async () => (await import("./FormModal")).FormModal);

interface Measurement<S> {
  kind: string;
  settings: { default: S };
}

interface Setup<S> {
  id: number;
  name: string;
  settings: S;
  tiles: Tiles | null;
}

/** Ways of working: named setups of the job, settings as a file, and the factory state. */
export function SetupMenu<S extends object>(props: {
  job: Job;
  /** Kind of measurement, such as "spectrum". */
  kind: string;
  settings: S | undefined;
  tiles: Tiles;
  onTake: (settings: S, tiles: Tiles | null) => unknown;
  onWrong: (problem: Problem) => void;
}) {
  const { job, kind, settings, tiles, onTake } = props;
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [naming, setNaming] = useState(false);
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState("");
  const { data: setups = [] } = useQuery({
    queryKey: ["setups", job.id, kind],
    queryFn: () => api.get<Setup<S>[]>(`/api/jobs/${job.id}/setups?measurement=${kind}`),
  });
  if (!settings) {
    return null;
  }
  const refuse = (e: unknown) => props.onWrong(e as Problem);
  const store = async () => {
    try {
      await api.post(`/api/jobs/${job.id}/setups`, { measurement: kind, name, settings, tiles });
      await queries.invalidateQueries({ queryKey: ["setups", job.id, kind] });
      setNaming(false);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const save = async () => {
    try {
      const text = await api.post<object>("/api/settings-file/write", {
        measurement: kind,
        settings,
        tiles,
      });
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
      const file = await api.postText<{ measurement: string; settings: S; tiles: Tiles | null }>(
        "/api/settings-file/read",
        await chosen.text(),
      );
      if (file.measurement !== kind) {
        throw new Problem(`it holds settings of "${file.measurement}"`, "settings", 0);
      }
      onTake(file.settings, file.tiles);
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
            <Menu.Item key={s.id} onClick={() => onTake(s.settings, s.tiles)}>
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
              api.get<Measurement<S>[]>("/api/measurements").then((all) => {
                const first = all.find((m) => m.kind === kind);
                return first && onTake(first.settings.default, null);
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
