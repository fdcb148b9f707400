import { Anchor, Button, Group, Text } from "@mantine/core";
import { useEffect } from "react";
import type { Problem } from "../../api/client";
import { formatEngineering } from "../../components/units";
import { hear, silence, usePlaying } from "./sound";

/** The sound of what is on the screen: to hear, and to take away. */
export function HearLine(props: {
  url: string;
  /** Something was measured. */
  ready: boolean;
  fails: (problem: Problem) => void;
}) {
  const { url, ready, fails } = props;
  const playing = usePlaying();
  const own = playing?.url === url ? playing : undefined;
  useEffect(() => silence, []);
  if (!ready) {
    return null;
  }
  return (
    <Group gap="xs" mt={4}>
      <Button
        size="compact-sm"
        variant={own ? "filled" : "default"}
        onClick={() => (own ? silence() : hear(url).catch(fails))}
      >
        {own ? "Silence" : "Hear it"}
      </Button>
      {own && (
        <Text fz="xs" c="dimmed">
          {formatEngineering(own.seconds, "s")} of sound
        </Text>
      )}
      <Anchor href={`${url}/sound`} download fz="sm">
        WAV file
      </Anchor>
    </Group>
  );
}
