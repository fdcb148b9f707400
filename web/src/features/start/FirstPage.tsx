import { Alert, Button, FileButton, SimpleGrid, Stack, Text, Title } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type NetworkSummary } from "../../api/client";
import { go } from "../../app/router";
import { OpenRecording } from "../spectrum/OpenRecording";

/** An empty Rovnik: the ways to begin. */
export function FirstPage({ onNewJob }: { onNewJob: () => void }) {
  const queries = useQueryClient();
  const [opening, setOpening] = useState(false);
  const [wrong, setWrong] = useState("");
  const openNetwork = async (file: File | null) => {
    if (!file) {
      return;
    }
    const form = new FormData();
    form.append("file", file);
    try {
      await api.post<NetworkSummary>("/api/networks", form);
      await queries.invalidateQueries({ queryKey: ["networks"] });
      go("/network");
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <Stack p="xl" maw={1060} mx="auto" mt={40} gap="lg">
      <Title order={1} size="h2">
        Where do you want to begin?
      </Title>
      {wrong && <Alert color="red">{wrong}</Alert>}
      <SimpleGrid cols={3} spacing="xl">
        <Stack gap="xs" align="flex-start">
          <Title order={2} size="h4">
            With a file
          </Title>
          <Text fz="sm">
            A recording (SigMF) is looked at as a spectrum, a Touchstone file as S-parameters. No
            job is needed to look.
          </Text>
          <Button onClick={() => setOpening(true)}>Open a recording</Button>
          <FileButton onChange={openNetwork}>
            {(p) => (
              <Button variant="default" {...p}>
                Open a Touchstone file
              </Button>
            )}
          </FileButton>
        </Stack>
        <Stack gap="xs" align="flex-start">
          <Title order={2} size="h4">
            With an instrument
          </Title>
          <Text fz="sm">
            Give its address; what answers there says what it is. Then a job holds the path, the
            limits and the runs of one device.
          </Text>
          <Button onClick={() => go("/bench")}>Add an instrument</Button>
          <Button variant="default" onClick={onNewJob}>
            Make the first job
          </Button>
        </Stack>
        <Stack gap="xs" align="flex-start">
          <Title order={2} size="h4">
            With the stand-ins
          </Title>
          <Text fz="sm">
            Simulated instruments with an invented harbour behind them: stop Rovnik and start it
            again with
          </Text>
          <code className="figures">./rovnik demo</code>
        </Stack>
      </SimpleGrid>
      {opening && (
        <OpenRecording
          onClose={() => setOpening(false)}
          onOpened={(source) => {
            sessionStorage.setItem("rovnik-source", source);
            go("/spectrum");
          }}
        />
      )}
    </Stack>
  );
}
