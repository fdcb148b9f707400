import { Alert, Stack } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import type { components } from "../api/schema";
import { later as fetched } from "../components/later";
import classes from "./App.module.css";

type Found = components["schemas"]["Found"];
type Health = components["schemas"]["Health"];

const FoundFiles = fetched(async () => (await import("./FoundFiles")).FoundFiles);

const HEALTH_MILLIS = 20_000;

/** What the server has to say that belongs to no area: its disk, and files that were found. */
export function Notices() {
  const { data: health } = useQuery({
    queryKey: ["health"],
    queryFn: async () => (await (await fetch("/api/health")).json()) as Health,
    refetchInterval: HEALTH_MILLIS,
  });
  const { data: found = [] } = useQuery({
    queryKey: ["found"],
    queryFn: () => api.get<Found[]>("/api/found"),
  });
  const [later, setLater] = useState(false);
  return (
    <Stack className={classes.notices} gap="xs" aria-live="polite">
      {health?.sentence && health.status !== "starting" && (
        <Alert
          color="red"
          title={health.status === "database" ? "Database" : "Disk"}
          styles={{ title: { color: "var(--ink)" } }}
        >
          {health.sentence}
        </Alert>
      )}
      {found.length > 0 && !later && <FoundFiles found={found} onLater={() => setLater(true)} />}
    </Stack>
  );
}
