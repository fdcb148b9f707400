import { Alert, Button, Group, Stack, Text, Title } from "@mantine/core";
import { IconPlus } from "@tabler/icons-react";
import { useState } from "react";
import type { Job } from "../../api/client";
import { useInstruments } from "../../desk/useInstruments";
import { AddInstrument } from "./AddInstrument";
import classes from "./BenchPage.module.css";
import { InstrumentLine } from "./InstrumentLine";

/** All instruments with their state, and what can be switched on them. */
export function BenchPage({ job }: { job: Job | undefined }) {
  const { data: instruments, error } = useInstruments();
  const [adding, setAdding] = useState(false);
  return (
    <div className={classes.page}>
      <Group mb="xs" justify="space-between">
        <Title order={1} size="h3">
          Bench
        </Title>
        <Button
          size="compact-md"
          leftSection={<IconPlus size={16} />}
          variant="light"
          onClick={() => setAdding(true)}
        >
          Add an instrument
        </Button>
      </Group>
      {error && <Alert color="red">{error.message}</Alert>}
      {instruments?.length === 0 && (
        <Stack align="center" mt={80}>
          <Text>
            No instrument is known yet. Add one by its address, for example 192.168.1.20, port 5025.
          </Text>
          <Button onClick={() => setAdding(true)}>Add the first instrument</Button>
        </Stack>
      )}
      {instruments?.map((i) => (
        <InstrumentLine key={i.id} instrument={i} job={job} />
      ))}
      {adding && <AddInstrument onClose={() => setAdding(false)} />}
    </div>
  );
}
