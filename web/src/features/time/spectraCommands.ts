import { numberCommand, pickCommand } from "../modulation/recordCommands";
import type { OfSpectra } from "./SpectraFields";
import { WINDOWS } from "./windows";

/** What can be typed of spectra one after the other. */
export const spectraCommands = (change: (part: Partial<OfSpectra>) => Promise<string>) => [
  numberCommand("span", "width that is looked at", "Hz", (spanHz) => change({ spanHz }), {
    whole: 0,
  }),
  numberCommand("rbw", "of each spectrum, or auto", "Hz", (rbwHz) => change({ rbwHz }), {
    auto: 0,
  }),
  pickCommand("window", "Hann, flat-top, ...", WINDOWS, (window) => change({ window })),
  numberCommand("overlap", "of windows", "%", (overlapPercent) => change({ overlapPercent })),
];
