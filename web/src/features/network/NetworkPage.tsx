import { Alert, Button, FileButton, Group, Stack, Text, TextInput } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, type Job } from "../../api/client";
import { PathStrip } from "../path/PathStrip";
import { RunTape, useRuns } from "../runs/RunTape";
import { Notice } from "../spectrum/Notice";
import { useCalm } from "../spectrum/useCalm";
import { Candidates } from "./Candidates";
import classes from "./NetworkPage.module.css";
import { NetworkSide } from "./NetworkSide";
import { NetworkSteps } from "./NetworkSteps";
import type { ChartMarker } from "./SmithChart";
import { Tile } from "./Tile";
import { TimeTile } from "./TimeTile";
import { useNetworkCommands } from "./useNetworkCommands";
import { type NetworkModel, useNetworks } from "./useNetworks";

/** S-parameters of files and of a live analyzer: calibration, views, corrections, verdicts. */
export function NetworkPage({ job }: { job: Job | undefined }) {
  const [markers, setMarkers] = useState<ChartMarker[]>([]);
  const model = useNetworks(
    job,
    markers.map((m) => m.hertz),
  );
  const queries = useQueryClient();
  const [zoom, setZoom] = useState<[number, number] | null>(null);
  const { setting, analyzer, live } = model;
  const { place, remember } = useNetworkCommands(model, setMarkers, setZoom);
  const remove = async (id: number) => {
    try {
      await api.remove(`/api/networks/${id}`);
      await queries.invalidateQueries({ queryKey: ["networks"] });
    } catch (e) {
      model.setRefused((e as Error).message);
    }
  };
  // Plots follow every sweep; words and numbers only as fast as they can be read.
  const calmFrame = useCalm(analyzer.frame, String(live?.id));
  const calm = calmFrame && live ? withFirst(model, calmFrame.header.network) : model;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what they show, but not each sweep
  const steps = useMemo(
    () => <NetworkSteps model={model} onRemove={remove} onRemember={remember} />,
    [
      model.networks[0]?.ports,
      model.band.join(),
      setting,
      model.files,
      model.wrong,
      model.asks,
      model.instruments,
      analyzer.state,
      analyzer.problem,
      analyzer.note,
      analyzer.verdict,
      analyzer.atPart,
      analyzer.dcChecked,
      model.dialog,
      job,
    ],
  );
  // Files change the networks; a sweep does so through the calm frame alone.
  const fromFiles = live ? model.networks.slice(1) : model.networks;
  const filesKey = fromFiles.map((n) => n.id).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the calm frame stands for the model
  const side = useMemo(
    () => (
      <NetworkSide
        model={calm}
        markers={markers}
        onRemove={(label) => setMarkers(markers.filter((m) => m.label !== label))}
      />
    ),
    [calmFrame, filesKey, fromFiles[0], setting, markers, model.asks, analyzer.state, live?.id],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it is made from, but not each sweep
  const tape = useMemo(
    () => live && job && <Tape model={model} job={job} />,
    [live?.id, job, model.shown.join(), analyzer.stats],
  );
  // The state may still be of another job, or of a path that was edited since.
  const planned = analyzer.state?.jobId === job?.id ? analyzer.state?.levels?.plan : undefined;
  const plan =
    planned?.planes.length === (job?.path.elements.length ?? 0) - 1 ? planned : undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it is made from, but not each sweep
  const strip = useMemo(
    () =>
      live &&
      job && (
        <PathStrip
          job={job}
          plan={plan}
          readAt={analyzer.atPart ? "the part itself" : "the calibrated ports"}
          instruments={model.instruments}
          onPlane={(plane) =>
            api
              .put(`/api/jobs/${job.id}/reading-plane`, { plane })
              .then(() => queries.invalidateQueries({ queryKey: ["jobs"] }))
          }
        />
      ),
    [live?.id, job, planned, analyzer.atPart, model.instruments],
  );
  if (model.files?.length === 0 && model.analyzers.length === 0) {
    return (
      <Stack align="center" justify="center" h="100%">
        <Text>No part is known yet. Open a Touchstone file (.s1p to .s32p, version 1 or 2).</Text>
        <FileButton onChange={model.open}>
          {(p) => <Button {...p}>Open a Touchstone file</Button>}
        </FileButton>
        {model.wrong && <Text c="red">{model.wrong}</Text>}
      </Stack>
    );
  }
  const below = setting.time.on ? Math.min(setting.count, 2) : setting.count;
  const tiles = below + (setting.time.on ? 1 : 0);
  const tile = (pane: number) => (
    <Tile
      key={pane}
      model={model}
      pane={pane}
      markers={markers}
      zoom={zoom}
      onZoom={setZoom}
      onPlace={place}
    />
  );
  return (
    <div className={classes.whole}>
      {strip}
      <div>
        <Notice model={analyzer} />
        {analyzer.problem?.field === "levelPlan" && <Override model={model} />}
      </div>
      <div className={classes.page}>
        <aside className={classes.steps} aria-label="Steps">
          {steps}
        </aside>
        {setting.candidates ? (
          <div className={classes.overOne}>
            <Candidates model={calm} />
            {tile(0)}
          </div>
        ) : (
          <div className={classes.tiles} data-count={Math.min(4, tiles)}>
            {setting.time.on && <TimeTile model={model} />}
            {Array.from({ length: below }, (_, i) => tile(i))}
          </div>
        )}
        <aside className={classes.side} aria-label="Readings">
          {side}
        </aside>
      </div>
      {tape}
    </div>
  );
}

function withFirst(model: NetworkModel, first: NetworkModel["networks"][number]): NetworkModel {
  return { ...model, networks: [first, ...model.networks.slice(1)] };
}

/** Says why power may flow all the same. */
function Override({ model }: { model: NetworkModel }) {
  const [reason, setReason] = useState("");
  return (
    <Alert color="red" p={6} radius={0}>
      <Group gap="sm">
        <TextInput
          size="xs"
          w={340}
          aria-label="Reason"
          placeholder="Why sweep all the same? It is kept with the run."
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        <Button
          size="compact-xs"
          color="red"
          disabled={!reason.trim()}
          onClick={() => model.analyzer.start(false, reason)}
        >
          Sweep all the same
        </Button>
      </Group>
    </Alert>
  );
}

/** The job's runs; those of an analyzer are laid over as files. */
function Tape({ model, job }: { model: NetworkModel; job: Job }) {
  const { data: runs = [] } = useRuns(job.id);
  const { shown, change } = model;
  const overlaid = runs
    .filter((r) => r.networkId !== null && shown.includes(r.networkId))
    .map((r) => r.id);
  return (
    <RunTape
      job={job}
      overlaid={overlaid}
      stats={model.analyzer.stats}
      onOverlay={(ids) => {
        const files = (wanted: (id: number) => boolean) =>
          runs.flatMap((r) => (wanted(r.id) && r.networkId !== null ? [r.networkId] : []));
        const ofRuns = files(() => true);
        change({
          shown: [
            ...shown.filter((id) => !ofRuns.includes(id)),
            ...files((id) => ids.includes(id)),
          ],
        });
      }}
    />
  );
}
