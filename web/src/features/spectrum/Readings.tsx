import { ReadingColumn } from "../../desk/ReadingColumn";
import { ReadingMenu, removeReading } from "./ReadingMenu";
import type { Frame } from "./spectrumFrame";
import type { SpectrumModel } from "./useSpectrum";

/** What is read of the newest frame; readings can be asked for and taken away. */
export function Readings(props: {
  frame: Frame | null;
  live: boolean;
  model: SpectrumModel;
  markerHz: number | null;
}) {
  const { frame, live, model } = props;
  return (
    <ReadingColumn
      readings={frame?.header.readings ?? []}
      note={frame && !live ? "of the last trace, not live" : undefined}
      onRemove={(id) => removeReading(model, id)}
    >
      <ReadingMenu model={model} markerHz={props.markerHz} />
    </ReadingColumn>
  );
}
