import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job } from "../api/client";
import { QuantityField } from "../components/QuantityField";
import { formatHertz } from "../components/units";
import classes from "./Desk.module.css";

/** The job's limits of a transmitter, as one sentence. */
export function LimitsSentence({ job }: { job: Job }) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const l = job.limits;
  const set = async (part: Partial<Job["limits"]>) => {
    try {
      await api.put(`/api/jobs/${job.id}/limits`, { ...l, ...part });
      setWrong("");
    } catch (e) {
      setWrong((e as Error).message);
    }
    await queries.invalidateQueries({ queryKey: ["jobs"] });
  };
  const field = (label: string, unit: string, key: keyof Job["limits"]) => (
    <QuantityField
      label={label}
      unit={unit}
      value={l[key] ?? Number.NaN}
      words={{ none: Number.NaN, "": Number.NaN }}
      format={(v) => (Number.isNaN(v) ? "any" : unit === "Hz" ? formatHertz(v) : `${v} ${unit}`)}
      next={(v, up) => v + (up ? 0.5 : -0.5)}
      onCommit={(v) => set({ [key]: v })}
    />
  );
  return (
    <div className={classes.sentence}>
      nominal {field("Nominal frequency", "Hz", "nominalHz")} ±{" "}
      {field("Frequency tolerance", "ppm", "frequencyTolerancePpm")},{" "}
      {field("Nominal level", "dBm", "nominalLevelDbm")} {"\u2212"}
      {field("Allowed below", "dB", "levelMinusDb")} +{field("Allowed above", "dB", "levelPlusDb")}
      {wrong && <div className={classes.mark}>{wrong}</div>}
    </div>
  );
}
