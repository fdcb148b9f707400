import { Button, Text } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job, type Problem, type Recording } from "../../api/client";
import classes from "../../desk/Desk.module.css";
import { LevelStep } from "../../desk/LevelStep";
import { Step } from "../../desk/Step";
import type { SpectrumModel } from "./useSpectrum";

interface Props {
  job: Job | undefined;
  model: SpectrumModel;
  recording: boolean;
}

/** The level plan, and the way past it with a reason; for a recording its calibration. */
export function Levels({ model, job, recording }: Props) {
  if (recording) {
    return (
      <Step title="Levels" state="done">
        <Text fz="sm">
          {model.state?.facts.levelUnit === "dBm"
            ? "Calibrated: levels in dBm at the reading plane."
            : "No calibration: levels in dBFS, relative to full scale."}
        </Text>
        <RealSamples source={model.state?.source ?? ""} />
        <Calibrate source={model.state?.source ?? ""} job={job} model={model} />
      </Step>
    );
  }
  return <LevelStep model={model} />;
}

/** Full scale is that of a complex tone: what a sine of real samples reads is said beside it. */
function RealSamples({ source }: { source: string }) {
  const { data = [] } = useQuery({
    queryKey: ["recordings"],
    queryFn: () => api.get<Recording[]>("/api/recordings"),
  });
  const recording = data.find((r) => `r${r.id}` === source);
  if (!recording?.datatype.startsWith("r")) {
    return null;
  }
  return (
    <Text fz="xs" c="dimmed">
      Real samples: a sine that reaches full scale shows two lines of −6.02 dB against it, at plus
      and minus its frequency.
    </Text>
  );
}

function Calibrate({
  source,
  job,
  model,
}: {
  source: string;
  job: Job | undefined;
  model: SpectrumModel;
}) {
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [within, setWithin] = useState("");
  const set = async (fullScaleDbm: number | null) => {
    try {
      await api.put(`/api/recordings/${source.slice(1)}/calibration`, {
        fullScaleDbm,
        levelAccuracyDb: within.trim() === "" ? null : Number(within),
      });
      await queries.invalidateQueries({ queryKey: ["recordings"] });
      await api.post(`/api/live/${source}/spectrum/start`, { jobId: job?.id ?? null });
    } catch (e) {
      model.setProblem(e as Problem);
    }
  };
  if (model.state?.facts.levelUnit === "dBm") {
    return (
      <Button size="compact-xs" variant="subtle" onClick={() => set(null)}>
        Take the calibration away
      </Button>
    );
  }
  const enter = () => text.trim() !== "" && set(Number(text));
  return (
    <div className={classes.sentence}>
      full scale is{" "}
      <Blank label="Full-scale level in dBm" value={text} onChange={setText} onEnter={enter} /> dBm
      ±{" "}
      <Blank
        label="How far off it may be, in dB"
        value={within}
        onChange={setWithin}
        onEnter={enter}
      />{" "}
      dB at the port
    </div>
  );
}

/** A number to be filled into a sentence. */
function Blank(props: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  onEnter: () => void;
}) {
  return (
    <input
      aria-label={props.label}
      placeholder="?"
      value={props.value}
      style={{
        width: "6ch",
        font: "inherit",
        background: "none",
        color: "inherit",
        border: 0,
        borderBottom: "1.5px dotted var(--ink-soft)",
      }}
      onChange={(e) => props.onChange(e.currentTarget.value)}
      onKeyDown={(e) => e.key === "Enter" && props.onEnter()}
    />
  );
}
