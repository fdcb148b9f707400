import { useState } from "react";
import { api, type Finding, type Outcome, type Problem } from "../../api/client";
import { FORMATS } from "./carrierWords";
import type { ModulationModel } from "./useModulation";

/** Asks what an unknown carrier is, and takes the answer over when one says so. */
export function useWhatIsIt(model: ModulationModel, source: string | null) {
  const [told, setTold] = useState<Finding | undefined>();
  const recording = source?.startsWith("r") ?? false;

  const ask = async () => {
    if (!recording) {
      await model.guide({ kind: "what-is-it" });
      return;
    }
    try {
      const { outcome } = await api.post<{ outcome: Outcome }>(
        `/api/recordings/${source?.slice(1)}/measure`,
        { measurement: "what-is-it" },
      );
      setTold({ id: 0, outcome });
    } catch (e) {
      model.setProblem(e as Problem);
    }
  };

  /** Puts the answer into the settings; what it leaves open stays as it is. */
  const takeOver = async (o: Outcome) => {
    const value = (id: string) => o.readings.find((r) => r.id === id)?.value ?? null;
    const label = o.tables[0]?.rows[0]?.cells[0]?.text;
    const format = Object.keys(FORMATS).find((k) => FORMATS[k] === label);
    const rate = value("symbolRate");
    const rollOff = value("rollOff");
    const deviation = value("deviation");
    if (rate === null || !format || (rollOff === null && deviation === null)) {
      return;
    }
    const filter = deviation
      ? value("bt")
        ? { filter: "gaussian", filterParameter: value("bt") ?? 0.5 }
        : { filter: "rectangular", filterParameter: 0 }
      : { filter: "root-raised-cosine", filterParameter: rollOff ?? 0.35 };
    const shift = deviation && Number(deviation.toPrecision(4));
    const wrong = await model.describe({
      format,
      mapping: null,
      symbolRateHz: Number(rate.toPrecision(5)),
      deviationHz: shift && !["msk", "gmsk"].includes(format) ? shift : null,
      ...filter,
    });
    const centre = value("carrierFrequency");
    if (!wrong && centre !== null && !recording) {
      const grid = 10 ** Math.floor(Math.log10(rate / 100));
      await model.change({ centreHz: Math.round(centre / grid) * grid });
    }
    setTold(undefined);
  };
  return { ask, takeOver, told, close: () => setTold(undefined) };
}
