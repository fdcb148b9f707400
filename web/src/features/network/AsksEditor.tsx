import { Textarea } from "@mantine/core";
import { useState } from "react";
import { FormModal } from "../../desk/FormModal";
import { bandsText, limitsText, parseBands, parseLimits } from "./asksText";
import type { NetworkModel } from "./useNetworks";

/** Limits and bands of the job as text, a line each. */
export function AsksEditor({ model, onClose }: { model: NetworkModel; onClose: () => void }) {
  const [limits, setLimits] = useState(limitsText(model.asks.limits));
  const [bands, setBands] = useState(bandsText(model.asks.bands));
  const [wrong, setWrong] = useState("");
  const done = async () => {
    const l = parseLimits(limits);
    const b = parseBands(bands);
    if (l.wrong || b.wrong) {
      setWrong(l.wrong || b.wrong);
      return;
    }
    try {
      await model.saveAsks({ limits: l.limits, bands: b.bands });
      onClose();
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const mono = { input: { fontFamily: "var(--mantine-font-family-monospace)" } };
  return (
    <FormModal
      title="Limits and bands of this job"
      size="xl"
      wrong={wrong}
      done="Use these"
      onClose={onClose}
      onDone={done}
    >
      <Textarea
        label="Limits, one a line"
        description="dB, VSWR, return loss, phase, delay or impedance; a slope is written as -40..-60"
        placeholder="pass band: S21 dB at least -1.8 from 456.9M to 460.1M"
        autosize
        minRows={4}
        data-autofocus
        styles={mono}
        value={limits}
        onChange={(e) => setLimits(e.currentTarget.value)}
      />
      <Textarea
        label="Bands where readings are wanted, one a line"
        placeholder="buoys: 457M to 460M"
        autosize
        minRows={3}
        styles={mono}
        value={bands}
        onChange={(e) => setBands(e.currentTarget.value)}
      />
    </FormModal>
  );
}
