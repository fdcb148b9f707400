import { Alert, Button, Text } from "@mantine/core";
import type { Hint } from "../api/client";

/** What should be known of an instrument, each with what can be done about it. */
export function Hints(props: {
  hints: Hint[];
  onTake: (values: Record<string, string>) => unknown;
}) {
  return props.hints.map((h) => (
    <Alert key={h.sentence} color="yellow" variant="light" p="4px 8px" mt={3}>
      <Text fz="sm" component="span">
        {h.sentence}
      </Text>{" "}
      {h.offer && (
        <Button size="compact-xs" variant="default" onClick={() => props.onTake(h.values)}>
          {h.offer}
        </Button>
      )}
    </Alert>
  ));
}
