import { Anchor, Button, Group, Text } from "@mantine/core";
import { useEffect } from "react";
import type { Problem } from "../../api/client";
import { formatEngineering } from "../../components/units";
import { hear, hearOn, silence, usePlaying } from "./sound";

/** The sound of what is on the screen: to hear, and to take away. */
export function HearLine(props: {
  url: string;
  /** Something was measured. */
  ready: boolean;
  /** Where its sound comes from as it is received; null where it is not. */
  lane: Parameters<typeof hearOn>[1] | null;
  fails: (problem: Problem) => void;
}) {
  const { url, ready, lane, fails } = props;
  const playing = usePlaying();
  const own = playing?.url === url ? playing : undefined;
  const live = own?.live;
  useEffect(() => silence, []);
  const ended = live !== undefined && lane === null;
  useEffect(() => {
    if (ended) {
      silence(); // held, or another source
    }
  }, [ended]);
  if (!ready) {
    return null;
  }
  const begin = () => (lane ? hearOn(url, lane) : hear(url).catch(fails));
  return (
    <Group gap="xs" mt={4}>
      <Button
        size="compact-sm"
        variant={own ? "filled" : "default"}
        onClick={() => (own ? silence() : begin())}
      >
        {own ? "Silence" : lane ? "Hear it now" : "Hear it"}
      </Button>
      {live ? (
        <Text fz="xs" c="dimmed" role="status">
          {Math.round(1000 * live.waits)} ms buffered
          {live.dropouts > 0 && `, ${live.dropouts} dropout${live.dropouts === 1 ? "" : "s"}`}
        </Text>
      ) : (
        own && (
          <Text fz="xs" c="dimmed">
            {formatEngineering(own.seconds, "s")} of sound
          </Text>
        )
      )}
      <Anchor href={`${url}/sound`} download fz="sm">
        WAV file
      </Anchor>
    </Group>
  );
}
