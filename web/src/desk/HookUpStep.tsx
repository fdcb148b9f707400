import { Button, Select } from "@mantine/core";
import type { ReactNode } from "react";
import type { Instrument } from "../api/client";
import { go } from "../app/router";
import { Step } from "./Step";

/** Which receiver or recording is looked at. */
export function HookUpStep(props: {
  sources: { value: string; label: string }[];
  source: string | null;
  instrument: Instrument | undefined;
  onSource: (source: string) => void;
  /** Undefined where recordings cannot be looked at. */
  onOpenRecording?: () => void;
  children?: ReactNode;
}) {
  const state = props.instrument?.state;
  const recording = props.source?.startsWith("r") ?? false;
  const here = state === "CONNECTED" || state === "BUSY";
  return (
    <Step
      title="Hook up"
      state={recording || here ? "done" : "attention"}
      aside={
        props.onOpenRecording && (
          <Button size="compact-xs" variant="subtle" onClick={props.onOpenRecording}>
            Open a recording
          </Button>
        )
      }
    >
      <Select
        aria-label="Source"
        size="xs"
        mt={3}
        allowDeselect={false}
        data={props.sources}
        value={props.source}
        placeholder="no receiver yet"
        onChange={(v) => v && props.onSource(v)}
      />
      {!recording && !here && (
        <Button size="compact-xs" variant="light" mt={3} onClick={() => go("/bench")}>
          To the Bench
        </Button>
      )}
      {props.children}
    </Step>
  );
}
