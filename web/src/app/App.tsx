import {
  ActionIcon,
  Button,
  Group,
  Modal,
  Select,
  Stack,
  Table,
  Text,
  TextInput,
  useMantineColorScheme,
} from "@mantine/core";
import {
  IconChartHistogram,
  IconHelp,
  IconMoon,
  IconPlugConnected,
  IconPlus,
  IconStack2,
  IconSun,
  IconTopologyRing,
} from "@tabler/icons-react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Job } from "../api/client";
import { BenchPage } from "../features/bench/BenchPage";
import { NetworkPage } from "../features/network/NetworkPage";
import { RunsPage } from "../features/runs/RunsPage";
import { SpectrumPage } from "../features/spectrum/SpectrumPage";
import classes from "./App.module.css";
import { allCommands, useCommands } from "./commands";
import { QuickEntry } from "./QuickEntry";
import { go, useAddress } from "./router";
import { useKeys } from "./useKeys";

const AREAS = [
  { id: "bench", label: "Bench", icon: IconPlugConnected },
  { id: "spectrum", label: "Spectrum", icon: IconChartHistogram },
  { id: "network", label: "Network", icon: IconTopologyRing },
  { id: "runs", label: "Runs", icon: IconStack2 },
];

const KEYS: [string, string][] = [
  ["/", "quick entry: a value, a setting with a value, or an action"],
  ["space", "start, hold, resume"],
  ["m", "marker on the highest peak"],
  ["n", "move the marker to the next lower peak"],
  ["d", "delta marker, measured from the marker"],
  ["c", "centre on the marker, or on the highest peak"],
  ["- and +", "narrow and widen the span"],
  ["p", "pin the marker as a further one"],
  ["b and f", "back to the framing before, and forward again"],
  ["a", "auto frame: find and frame what is there"],
  ["w", "whose line is it?"],
  ["l", "table of lines"],
  ["k", "keep a run"],
  ["s", "one sweep of the network analyzer"],
  ["r", "remember the sweep to compare with"],
  ["t", "reflection over distance"],
  ["[ and ]", "move the reading plane"],
  ["?", "this list"],
];

export function App() {
  const { area } = useAddress();
  const [help, setHelp] = useState(false);
  const { colorScheme, toggleColorScheme } = useMantineColorScheme();
  const { job, jobs, known, chooseJob } = useJob();
  const [naming, setNaming] = useState(false);

  useKeys({ "?": () => setHelp(true) });
  useCommands([
    ...AREAS.map((a) => ({
      name: a.id,
      argument: "",
      hint: `go to ${a.label}`,
      run: () => {
        go(`/${a.id}`);
        return "";
      },
    })),
    {
      name: "job",
      argument: "<part of its name>",
      hint: "work on another job",
      run: (name: string) => {
        const found = jobs.filter((j) => j.name.toLowerCase().includes(name.toLowerCase()));
        if (found.length !== 1) {
          const names = (found.length ? found : jobs).map((j) => j.name).join(", ");
          return `Which job? ${names}.`;
        }
        chooseJob(found[0].id);
        return "";
      },
    },
    {
      name: "light or dark",
      argument: "",
      hint: "change the theme",
      run: () => {
        toggleColorScheme();
        return "";
      },
    },
  ]);

  return (
    <div className={classes.shell}>
      <header className={classes.top}>
        <span className={classes.mark}>Rovnik</span>
        <Group gap={6}>
          <Text size="sm" c="dimmed">
            Job
          </Text>
          <Select
            aria-label="Job"
            size="xs"
            w={260}
            allowDeselect={false}
            data={jobs.map((j) => ({ value: String(j.id), label: j.name }))}
            value={job ? String(job.id) : null}
            onChange={(v) => v && chooseJob(Number(v))}
          />
          <ActionIcon
            variant="subtle"
            aria-label="New job"
            title="New job"
            onClick={() => setNaming(true)}
          >
            <IconPlus size={18} />
          </ActionIcon>
        </Group>
        <div style={{ flex: 1 }} />
        <QuickEntry />
        <ActionIcon
          variant="subtle"
          aria-label="Light or dark"
          title="Light or dark"
          onClick={() => toggleColorScheme()}
        >
          {colorScheme === "dark" ? <IconSun size={20} /> : <IconMoon size={20} />}
        </ActionIcon>
        <ActionIcon
          variant="subtle"
          aria-label="Keys"
          title="Keys (?)"
          onClick={() => setHelp(true)}
        >
          <IconHelp size={20} />
        </ActionIcon>
      </header>
      <nav className={classes.rail} aria-label="Work areas">
        {AREAS.map((a) => (
          <button
            key={a.id}
            type="button"
            className={classes.area}
            aria-current={area === a.id ? "page" : undefined}
            onClick={() => go(`/${a.id}`)}
          >
            <a.icon size={22} stroke={1.6} />
            {a.label}
          </button>
        ))}
      </nav>
      <main className={classes.main}>
        {area === "bench" && <BenchPage job={job} />}
        {area === "spectrum" && job && <SpectrumPage key={job.id} job={job} />}
        {area === "network" && known && <NetworkPage key={job?.id} job={job} />}
        {area === "runs" && job && <RunsPage job={job} />}
        {!job && area !== "bench" && area !== "network" && (
          <Stack align="center" justify="center" h="100%">
            <Text>There is no job yet: a job holds your path, limits and runs.</Text>
            <Button onClick={() => setNaming(true)}>Make the first job</Button>
          </Stack>
        )}
      </main>
      <Help opened={help} onClose={() => setHelp(false)} />
      <NewJob opened={naming} onClose={() => setNaming(false)} onMade={chooseJob} />
    </div>
  );
}

function useJob() {
  const [chosen, setChosen] = useState<number | null>(
    Number(localStorage.getItem("rovnik-job")) || null,
  );
  const { data: jobs = [], isFetched: known } = useQuery({
    queryKey: ["jobs"],
    queryFn: () => api.get<Job[]>("/api/jobs"),
    refetchInterval: 3000,
  });
  const job = jobs.find((j) => j.id === chosen) ?? jobs[0];
  useEffect(() => {
    if (chosen) {
      localStorage.setItem("rovnik-job", String(chosen));
    }
  }, [chosen]);
  return { job, jobs, known, chooseJob: setChosen };
}

function Help({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys and quick entry" size="lg">
      <Group align="flex-start" wrap="nowrap" gap="xl">
        <Table fz="sm" verticalSpacing={3}>
          <Table.Tbody>
            {KEYS.map(([key, what]) => (
              <Table.Tr key={key}>
                <Table.Td className="figures" fw={600} style={{ whiteSpace: "nowrap" }}>
                  {key}
                </Table.Td>
                <Table.Td>{what}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        <Table fz="sm" verticalSpacing={3}>
          <Table.Tbody>
            {allCommands().map((c) => (
              <Table.Tr key={c.name}>
                <Table.Td className="figures" style={{ whiteSpace: "nowrap" }}>
                  {c.name} {c.argument}
                </Table.Td>
                <Table.Td>{c.hint}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Group>
    </Modal>
  );
}

function NewJob(props: { opened: boolean; onClose: () => void; onMade: (id: number) => void }) {
  const [name, setName] = useState("");
  const [dut, setDut] = useState("");
  const [error, setError] = useState("");
  const queries = useQueryClient();
  const make = async () => {
    try {
      const job = await api.post<Job>("/api/jobs", { name, dut });
      await queries.invalidateQueries({ queryKey: ["jobs"] });
      props.onMade(job.id);
      props.onClose();
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <Modal opened={props.opened} onClose={props.onClose} title="New job">
      <Stack>
        <TextInput
          label="Name of the job"
          placeholder="Outer buoy, yearly check"
          data-autofocus
          value={name}
          error={error}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <TextInput
          label="Device under test"
          value={dut}
          onChange={(e) => setDut(e.currentTarget.value)}
        />
        <Button onClick={make}>Make the job</Button>
      </Stack>
    </Modal>
  );
}
