import { Button, Group, Text } from "@mantine/core";
import { type ReactNode, useState } from "react";
import type { LiveCut } from "../../api/client";

/** A stretch of what is looked at becomes a recording. */
export function KeepRecording(props: {
  model: { cut: (wanted: LiveCut | string) => Promise<string> };
  label: string;
  /** Which one. */
  children: ReactNode;
  /** The stretch, or why there is none. */
  stretch: () => LiveCut | string;
}) {
  const { model, label, children, stretch } = props;
  const [wrong, setWrong] = useState("");
  return (
    <Group gap="xs" mt={4}>
      <Button
        size="compact-sm"
        variant="default"
        onClick={async () => setWrong(await model.cut(stretch()))}
      >
        {label}
      </Button>
      {children}
      <Text fz="xs" c={wrong ? "red" : "dimmed"} role={wrong ? "alert" : undefined}>
        {wrong || "as a recording"}
      </Text>
    </Group>
  );
}
