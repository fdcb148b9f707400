import { Alert, Button, Group, Text } from "@mantine/core";
import { type Problem, thisWindow } from "../api/client";

/** What a source and the last request say. */
interface Noticed {
  state: {
    holder: string;
    holderName: string;
    phase: string;
    sourceName: string;
    message: string;
  } | null;
  problem: Problem | null;
  connected: boolean;
  takeOver: () => unknown;
  setProblem: (problem: null) => void;
}

/** What stands in the way, over the whole width, with the next thing to do. */
export function Notice({ model }: { model: Noticed }) {
  const { state, problem, connected } = model;
  const other =
    state?.holder &&
    state.holder !== thisWindow.id &&
    (state.holder !== "script" || problem?.field === "holder");
  if (!connected && state) {
    return (
      <Alert color="red" p={6} radius={0}>
        The connection to Rovnik's server broke; trying again. What is drawn is the last that came.
      </Alert>
    );
  }
  if (state?.phase === "LOST") {
    return (
      <Alert color="red" p={6} radius={0}>
        {state.sourceName} is lost: {state.message} The last trace stays; measuring goes on by
        itself when it is back.
      </Alert>
    );
  }
  if (other) {
    return (
      <Alert color="yellow" p={6} radius={0}>
        <Group gap="sm">
          <Text fz="sm">
            {state.sourceName} is held by {state.holderName}. You watch the same frames
            {problem?.field === "holder" ? "; settings stay with it" : ""}.
          </Text>
          <Button size="compact-xs" onClick={() => model.takeOver()}>
            Take it over
          </Button>
        </Group>
      </Alert>
    );
  }
  const text =
    problem?.message ||
    (state?.phase === "REFUSED" || state?.phase === "HELD" ? state.message : "");
  if (text) {
    return (
      <Alert
        color="red"
        p={6}
        radius={0}
        withCloseButton={Boolean(problem)}
        onClose={() => model.setProblem(null)}
      >
        {text}
      </Alert>
    );
  }
  return null;
}
