import {
  ActionIcon,
  Button,
  Group,
  Select,
  Stack,
  Text,
  Title,
  useMantineColorScheme,
} from "@mantine/core";
import {
  IconAntenna,
  IconChartHistogram,
  IconGridDots,
  IconHelp,
  IconMoon,
  IconPencil,
  IconPlugConnected,
  IconPlus,
  IconStack2,
  IconSun,
  IconTopologyRing,
  IconWaveSquare,
} from "@tabler/icons-react";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { api, type Job, type Recording } from "../api/client";
import { later } from "../components/later";
import { useInstruments } from "../desk/useInstruments";
import { AccountButton } from "../features/access/AccountButton";
import { useMe } from "../features/access/useMe";
import { TIME_KIND_KEY } from "../features/time/kinds";
import classes from "./App.module.css";
import { useCommands } from "./commands";
import { Notices } from "./Notices";
import { QuickEntry } from "./QuickEntry";
import { go, useAddress } from "./router";
import { useKeys } from "./useKeys";

const JobDialog = later(async () => (await import("./JobDialog")).JobDialog);

const SignIn = later(async () => (await import("../features/access/SignIn")).SignIn);

const Help = later(async () => (await import("./Help")).Help);

// An area is loaded when it is first opened.
const BenchPage = lazy(async () => ({
  default: (await import("../features/bench/BenchPage")).BenchPage,
}));
const FirstPage = lazy(async () => ({
  default: (await import("../features/start/FirstPage")).FirstPage,
}));
const SpectrumPage = lazy(async () => ({
  default: (await import("../features/spectrum/SpectrumPage")).SpectrumPage,
}));
const ModulationPage = lazy(async () => ({
  default: (await import("../features/modulation/ModulationPage")).ModulationPage,
}));
const TimePage = lazy(async () => ({
  default: (await import("../features/time/TimePage")).TimePage,
}));
const ReceiverPage = lazy(async () => ({
  default: (await import("../features/receiver/ReceiverPage")).ReceiverPage,
}));
const NetworkPage = lazy(async () => ({
  default: (await import("../features/network/NetworkPage")).NetworkPage,
}));
const RunsPage = lazy(async () => ({
  default: (await import("../features/runs/RunsPage")).RunsPage,
}));

const AREAS = [
  { id: "bench", label: "Bench", icon: IconPlugConnected },
  { id: "spectrum", label: "Spectrum", icon: IconChartHistogram },
  { id: "modulation", label: "Modulation", icon: IconGridDots },
  { id: "time", label: "Time", icon: IconWaveSquare },
  { id: "receiver", label: "Receiver", icon: IconAntenna },
  { id: "network", label: "Network", icon: IconTopologyRing },
  { id: "runs", label: "Runs", icon: IconStack2 },
];

/** From any area to its long watches. */
const toWatch = {
  name: "watch",
  argument: "",
  hint: "follow numbers for hours and days",
  run: () => {
    sessionStorage.setItem(TIME_KIND_KEY, "watch");
    go("/time");
    return "";
  },
};

/** The desk, or the page to sign in. */
export function App() {
  const me = useMe();
  if (me === undefined) {
    return null;
  }
  return me ? <Shell /> : <SignIn />;
}

function Shell() {
  const { area } = useAddress();
  const [help, setHelp] = useState(false);
  const { colorScheme, toggleColorScheme } = useMantineColorScheme();
  const { job, jobs, known, chooseJob } = useJob();
  const sources = useAnySource();
  const [naming, setNaming] = useState(false);
  const [editing, setEditing] = useState(false);

  useKeys({ "?": () => setHelp(true) });
  useCommands([
    ...(area === "time" ? [] : [toWatch]),
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
            data={[
              { group: "Jobs", items: listed(jobs, false) },
              { group: "Archive", items: listed(jobs, true) },
            ].filter((g) => g.items.length > 0)}
            value={job ? String(job.id) : null}
            onChange={(v) => v && chooseJob(Number(v))}
          />
          <ActionIcon
            variant="subtle"
            aria-label="Edit the job"
            title="Rename, archive or remove the job"
            disabled={!job}
            onClick={() => setEditing(true)}
          >
            <IconPencil size={17} />
          </ActionIcon>
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
        <AccountButton />
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
        <Suspense fallback={<Text p="md">Opening ...</Text>}>
          {known && !job && !sources && area === "spectrum" && (
            <FirstPage onNewJob={() => setNaming(true)} />
          )}
          {area === "bench" && <BenchPage job={job} />}
          {area === "spectrum" && known && (job || sources) && (
            <SpectrumPage key={job?.id} job={job} />
          )}
          {area === "modulation" && known && <ModulationPage key={job?.id} job={job} />}
          {area === "time" && known && <TimePage key={job?.id} job={job} />}
          {area === "receiver" && known && <ReceiverPage key={job?.id} job={job} />}
          {area === "network" && known && <NetworkPage key={job?.id} job={job} />}
          {area === "runs" && job && <RunsPage job={job} />}
        </Suspense>
        {known && !job && area === "runs" && (
          <Stack align="center" justify="center" h="100%">
            <Title order={1} size="h4">
              Runs
            </Title>
            <Text>They are kept in a job, and there is none yet.</Text>
            <Button onClick={() => setNaming(true)}>Make the first job</Button>
          </Stack>
        )}
      </main>
      <Notices />
      {help && <Help area={area} onClose={() => setHelp(false)} />}
      {naming && <JobDialog onClose={() => setNaming(false)} onMade={chooseJob} />}
      {editing && job && <JobDialog job={job} onClose={() => setEditing(false)} />}
    </div>
  );
}

const listed = (jobs: Job[], archived: boolean) =>
  jobs.filter((j) => j.archived === archived).map((j) => ({ value: String(j.id), label: j.name }));

/** True if there is something to look at: an instrument or a recording. */
function useAnySource(): boolean {
  const { data: instruments = [] } = useInstruments();
  const { data: recordings = [] } = useQuery({
    queryKey: ["recordings"],
    queryFn: () => api.get<Recording[]>("/api/recordings"),
  });
  return instruments.length + recordings.length > 0;
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
  const job = jobs.find((j) => j.id === chosen) ?? jobs.find((j) => !j.archived) ?? jobs[0];
  useEffect(() => {
    if (chosen) {
      localStorage.setItem("rovnik-job", String(chosen));
    }
  }, [chosen]);
  return { job, jobs, known, chooseJob: setChosen };
}
