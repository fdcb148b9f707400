import { Alert, Button, Group, Text, Textarea } from "@mantine/core";
import { useState } from "react";

/** What the level plan says against it, and the way past it with a reason. */
export function RefusedSwitch(props: {
  why: string;
  onTurn: (reason: string) => void;
  onLeave: () => void;
}) {
  const [reason, setReason] = useState("");
  return (
    <Alert color="red" variant="light" p={8} title="Not switched">
      <Text fz="sm">{props.why}</Text>
      <Group mt={6} align="flex-end">
        <Textarea
          aria-label="Reason"
          placeholder="Why do it all the same?"
          autosize
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
          style={{ flex: 1 }}
        />
        <Button
          size="xs"
          color="red"
          disabled={!reason.trim()}
          onClick={() => props.onTurn(reason)}
        >
          Switch all the same
        </Button>
        <Button size="xs" variant="default" onClick={props.onLeave}>
          Leave it
        </Button>
      </Group>
    </Alert>
  );
}
