import type { CarrierDescription, ReceiverState } from "../../api/client";
import { FIRST_CARRIER } from "../waveforms/parts";

/** What a voice receiver is sent to begin with. */
export const VOICE_PART = "fm";

/** What a data receiver is sent to begin with: four bits a symbol and a sequence that comes round. */
export const waveformOf = (facts: ReceiverState["facts"] | undefined): CarrierDescription =>
  facts?.countsBits
    ? {
        ...FIRST_CARRIER,
        format: "qam16",
        symbolRateHz: facts.bitRate / 4,
        filterParameter: 0.25,
        prbs: 15,
      }
    : FIRST_CARRIER;
