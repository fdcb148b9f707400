import { Button, Text, Textarea } from "@mantine/core";
import { useState } from "react";
import type { LevelPlan } from "../api/client";
import { withMinus } from "../components/units";
import { Step } from "./Step";
import type { StartOptions } from "./useSession";

interface Planned {
  plan: LevelPlan | undefined;
  state: { overrideReason: string; phase: string } | null;
  start: (options: StartOptions) => unknown;
}

/** What the level plan says, and the way past it with a reason. */
export function LevelStep({ model }: { model: Planned }) {
  const [reason, setReason] = useState("");
  const finding = model.plan?.findings[0];
  const blocked = model.plan?.blocked ?? false;
  const overridden = model.state?.overrideReason ?? "";
  const running = model.state?.phase === "RUNNING";
  return (
    <Step title="Levels" state={blocked || finding ? "attention" : model.plan ? "done" : "open"}>
      <Text fz="sm" data-testid="level-finding">
        {withMinus(finding?.sentence ?? "Nothing is overloaded as planned.")}
      </Text>
      {blocked && running && overridden && <Text fz="sm">Overridden: {overridden}</Text>}
      {blocked && !running && (
        <>
          <Textarea
            aria-label="Reason for the override"
            placeholder="Why measure all the same?"
            size="xs"
            autosize
            mt={4}
            value={reason}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Button
            size="compact-sm"
            color="red"
            mt={4}
            disabled={!reason.trim()}
            onClick={() => model.start({ overrideReason: reason })}
          >
            Measure all the same
          </Button>
        </>
      )}
    </Step>
  );
}
