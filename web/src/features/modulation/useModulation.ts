import type { CarrierSettings, Job } from "../../api/client";
import { partsOf } from "../../api/frames";
import { described, keyed } from "./carrierWords";
import { useRecords } from "./useRecords";

/** Everything that the desk of carriers with data does with its source. */
export function useModulation(job: Job | undefined, source: string | null) {
  const records = useRecords<CarrierSettings>(job, source, "single-carrier");
  const { change, wished } = records;

  /** Changes what the carrier is said to be. */
  const describe = (part: Partial<CarrierSettings["carrier"]>) => {
    const now = wished();
    return now
      ? change({
          carrier: described(now.carrier, part),
          // What only carriers with points have goes with them.
          ...(part.format && keyed(part.format) ? { equalizer: null, trackSymbols: null } : {}),
        })
      : Promise.resolve("There is no source yet.");
  };

  /** Switches the equalizer; one that is held keeps the weights of the result on the screen. */
  const equalize = (equalizer: string) => {
    if (equalizer !== "held") {
      return change({ equalizer, equalizerTaps: null });
    }
    const frame = records.frame;
    const taps = frame?.outcome.series.find((x) => x.id === "equalizerTaps");
    if (!frame || !taps) {
      return Promise.resolve("There are no weights yet. Train the equalizer first, then hold it.");
    }
    const { re, im } = partsOf(taps, frame.arrays);
    return change({ equalizer, equalizerTaps: Array.from(re, (x, i) => [x, im[i]]) });
  };
  return { ...records, describe, equalize };
}

export type ModulationModel = ReturnType<typeof useModulation>;
