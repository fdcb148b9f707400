import { Button } from "@mantine/core";
import type { ViewPlan } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering } from "../../components/units";
import { Choice } from "../../desk/Choice";
import { WINDOWS } from "./choices";
import type { SpectrumModel } from "./useSpectrum";

const UNITS: Record<string, string> = {
  DBM: "dBm",
  DBUV: "dB\u00B5V",
  DBV: "dBV",
  VOLT: "V",
  WATT: "W",
};

const PROBES: Record<string, string> = { "1": "1:1", "10": "10:1" };

/** The unit of levels, and the second input where there is one. */
export function LevelSentence({ model, inputs }: { model: SpectrumModel; inputs: number }) {
  const view = model.state?.settings.view;
  if (!view || model.state?.facts.levelUnit === "dBFS") {
    return null;
  }
  const wrong = (field: string) =>
    model.problem?.field === field ? model.problem.message : undefined;
  return (
    <>
      <br />
      levels in{" "}
      <Choice
        label="Unit of levels"
        value={view.unit}
        choices={UNITS}
        onChange={(unit) => model.changeView({ unit })}
      />{" "}
      across{" "}
      <QuantityField
        label="Impedance"
        unit="ohm"
        value={view.impedanceOhm}
        error={wrong("impedanceOhm")}
        format={(v) => formatEngineering(v, "\u03A9")}
        next={(v, up) => ohmStep(v, up)}
        onCommit={(impedanceOhm) => model.changeView({ impedanceOhm })}
      />
      {inputs > 1 && (
        <>
          <br />
          <Second model={model} view={view} wrong={wrong} />
        </>
      )}
    </>
  );
}

/** The impedances of the trade, up and down. */
function ohmStep(ohm: number, up: boolean): number {
  const steps = [50, 75, 300, 600, 1e3, 1e4, 1e5, 1e6];
  const next = up ? steps.find((s) => s > ohm) : steps.reverse().find((s) => s < ohm);
  return next ?? ohm;
}

function Second(props: {
  model: SpectrumModel;
  view: ViewPlan;
  wrong: (field: string) => string | undefined;
}) {
  const { model, view, wrong } = props;
  const second = view.second;
  if (!second) {
    return (
      <Button
        size="compact-xs"
        variant="subtle"
        onClick={() =>
          model.changeView({ second: { window: "HANN", referenceLevelDbm: 20, probeRatio: 10 } })
        }
      >
        + input 2
      </Button>
    );
  }
  const set = (part: Partial<typeof second>) =>
    model.changeView((now) => ({ second: { ...(now.second ?? second), ...part } }));
  return (
    <>
      input 2: reference{" "}
      <QuantityField
        label="Reference level of input 2"
        unit="dBm"
        value={second.referenceLevelDbm}
        error={wrong("second.referenceLevelDbm")}
        next={(v, up) => v + (up ? 5 : -5)}
        onCommit={(referenceLevelDbm) => set({ referenceLevelDbm })}
      />
      ,{" "}
      <Choice
        label="Window of input 2"
        value={second.window}
        choices={WINDOWS}
        onChange={(window) => set({ window })}
      />
      , probe{" "}
      <Choice
        label="Probe of input 2"
        value={String(second.probeRatio)}
        choices={PROBES}
        onChange={(v) => set({ probeRatio: Number(v) })}
      />
    </>
  );
}
