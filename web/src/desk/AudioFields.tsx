import { QuantityField } from "../components/QuantityField";
import { formatEngineering, formatHertz } from "../components/units";
import { Choice } from "./Choice";

const DE_EMPHASIS: Record<string, string> = {
  "0": "none",
  "0.00005": "50 µs",
  "0.000075": "75 µs",
  "0.00075": "750 µs",
};

/** What demodulated sound passes. */
export interface AudioPass {
  audioLowHz: number;
  audioHighHz: number;
  deEmphasisSeconds: number;
}

/** What a field of it is made with. */
interface OfAudio {
  settings: AudioPass;
  wrong: (field: string) => string | undefined;
  change: (part: Partial<AudioPass>) => unknown;
}

/** From which frequency to which. */
export function AudioRange({ of }: { of: OfAudio }) {
  const field = (name: "audioLowHz" | "audioHighHz", label: string) => (
    <QuantityField
      label={label}
      unit="Hz"
      value={of.settings[name]}
      words={{ all: 0, none: 0 }}
      error={of.wrong(name)}
      format={(v) => (v === 0 ? "all" : formatHertz(v))}
      onCommit={(v) => of.change({ [name]: v })}
    />
  );
  return (
    <>
      {field("audioLowHz", "Audio from")} to {field("audioHighHz", "Audio to")}
    </>
  );
}

/** What its high notes are lowered by. */
export function DeEmphasis({ of }: { of: OfAudio }) {
  const now = of.settings.deEmphasisSeconds;
  const key = String(now);
  return (
    <Choice
      label="De-emphasis"
      value={key}
      choices={
        DE_EMPHASIS[key] ? DE_EMPHASIS : { ...DE_EMPHASIS, [key]: formatEngineering(now, "s") }
      }
      onChange={(v) => of.change({ deEmphasisSeconds: Number(v) })}
    />
  );
}
