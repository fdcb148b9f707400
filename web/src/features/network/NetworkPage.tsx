import {
  Alert,
  Button,
  FileButton,
  Group,
  Stack,
  Text,
  TextInput,
  VisuallyHidden,
} from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job } from "../../api/client";
import { useStats } from "../../api/live";
import { later } from "../../components/later";
import { Desk } from "../../desk/Desk";
import { Notice } from "../../desk/Notice";
import { useZooms } from "../../desk/SeriesPlot";
import { TileGrid } from "../../desk/TileGrid";
import { PathStrip } from "../path/PathStrip";
import { RunTape, useRuns } from "../runs/RunTape";
import classes from "./NetworkPage.module.css";
import { NetworkSide } from "./NetworkSide";
import { NetworkSteps } from "./NetworkSteps";
import type { ChartMarker } from "./panes";
import { Tile } from "./Tile";
import { useNetworkCommands } from "./useNetworkCommands";
import { type NetworkModel, useNetworks } from "./useNetworks";

const TimeTile = later(async () => (await import("./TimeTile")).TimeTile);

const Candidates = later(async () => (await import("./Candidates")).Candidates);

/** S-parameters of files and of a live analyzer: calibration, views, corrections, verdicts. */
export function NetworkPage({ job }: { job: Job | undefined }) {
  const [markers, setMarkers] = useState<ChartMarker[]>([]);
  const model = useNetworks(
    job,
    markers.map((m) => m.hertz),
  );
  const queries = useQueryClient();
  const zooms = useZooms();
  const { setting, analyzer, live } = model;
  const { place, remember } = useNetworkCommands(model, setMarkers, zooms);
  const remove = async (id: number) => {
    try {
      await api.remove(`/api/networks/${id}`);
      await queries.invalidateQueries({ queryKey: ["networks"] });
    } catch (e) {
      model.setRefused((e as Error).message);
    }
  };
  // The state may still be of another job, or of a path that was edited since.
  const planned = analyzer.state?.jobId === job?.id ? analyzer.facts?.levels?.plan : undefined;
  const plan =
    planned?.planes.length === (job?.path.elements.length ?? 0) - 1 ? planned : undefined;
  if (model.files?.length === 0 && model.analyzers.length === 0) {
    return (
      <Stack align="center" justify="center" h="100%">
        <VisuallyHidden component="h1">Network</VisuallyHidden>
        <Text>No part is known yet. Open a Touchstone file (.s1p to .s32p, version 1 or 2).</Text>
        <FileButton onChange={model.open}>
          {(p) => <Button {...p}>Open a Touchstone file</Button>}
        </FileButton>
        {model.wrong && <Text c="red">{model.wrong}</Text>}
      </Stack>
    );
  }
  const tile = (pane: number) => (
    <Tile key={pane} model={model} pane={pane} markers={markers} zooms={zooms} onPlace={place} />
  );
  return (
    <Desk
      title="Network"
      path={
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
        )
      }
      notice={
        <>
          <Notice model={analyzer} />
          {analyzer.problem?.field === "levelPlan" && <Override model={model} />}
        </>
      }
      steps={<NetworkSteps model={model} onRemove={remove} onRemember={remember} />}
      tiles={
        setting.candidates ? (
          <div className={classes.overOne}>
            <Candidates model={model} />
            {tile(0)}
          </div>
        ) : (
          <TileGrid>
            {setting.time.on ? [<TimeTile key="distance" model={model} />] : []}
            {model.views.map((_, pane) => tile(pane))}
          </TileGrid>
        )
      }
      readings={
        <NetworkSide
          model={model}
          markers={markers}
          onRemove={(label) => setMarkers(markers.filter((m) => m.label !== label))}
        />
      }
      tape={live && job && <Tape model={model} job={job} />}
    />
  );
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
  const stats = useStats(model.analyzer.store);
  const overlaid = runs
    .filter((r) => r.attachments.networkId !== null && shown.includes(r.attachments.networkId))
    .map((r) => r.id);
  return (
    <RunTape
      job={job}
      overlaid={overlaid}
      stats={stats}
      onOverlay={(ids) => {
        const files = (wanted: (id: number) => boolean) =>
          runs.flatMap((r) =>
            wanted(r.id) && r.attachments.networkId !== null ? [r.attachments.networkId] : [],
          );
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
