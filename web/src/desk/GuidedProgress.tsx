import { Button, Progress, Text } from "@mantine/core";
import { withMinus } from "../components/units";
import { hasPicture } from "./outcomes";
import { useFinding } from "./useFinding";

/** How far guided work is, or what is scanned, with a way to stop it. */
export function GuidedProgress(props: {
  model: Parameters<typeof useFinding>[0] & {
    state: { guided: GuidedState | null } | null;
    stopGuided: () => unknown;
  };
  scanning?: { progress: number; remainingSeconds: number } | null;
}) {
  const { model, scanning } = props;
  const guided = model.state?.guided;
  const finding = useFinding(model);
  if (!guided && !scanning) {
    // A finding without a picture is a sentence; one with a picture is shown in the plot's place.
    return finding && !hasPicture(finding.outcome) ? (
      <Text fz="sm" role="status">
        {withMinus(finding.outcome.summary)}
      </Text>
    ) : null;
  }
  const done = guided?.progress ?? scanning?.progress ?? 0;
  const left = Math.ceil(guided?.remainingSeconds ?? scanning?.remainingSeconds ?? 0);
  return (
    <div data-testid="progress">
      <Text fz="sm">
        {guided ? `${guided.title}: ${guided.words}` : "scanning"}
        {left > 0 ? `, ${left} s left` : ""}
      </Text>
      <Progress value={100 * done} size="sm" my={3} aria-label="Progress" />
      {guided && (
        <Button size="compact-xs" variant="default" onClick={() => model.stopGuided()}>
          Stop, keep what there is
        </Button>
      )}
    </div>
  );
}

interface GuidedState {
  title: string;
  words: string;
  progress: number;
  remainingSeconds: number;
}
