import type { CarrierDescription, ReceiverState, WaveformPart } from "../../api/client";
import { FIRST_CARRIER } from "../waveforms/parts";

/** What a voice receiver is sent to begin with: 60 % of 2.5 kHz at 1 kHz (common practice). */
export const VOICE_PART: Partial<WaveformPart> = { kind: "fm", deviationHz: 1.5e3, rateHz: 1e3 };

/** The same beside it, with another tone. */
export const NEIGHBOUR_PART: Partial<WaveformPart> = { ...VOICE_PART, rateHz: 400 };

/** What a data receiver is sent to begin with: four bits a symbol and a sequence that comes round. */
export const waveformOf = (facts: ReceiverState["facts"]): CarrierDescription =>
  facts.countsBits
    ? {
        ...FIRST_CARRIER,
        format: "qam16",
        symbolRateHz: facts.bitRate / 4,
        filterParameter: 0.25,
        prbs: 15,
      }
    : FIRST_CARRIER;
