import { Button, Text } from "@mantine/core";
import type { PlaceSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { WordField } from "../../components/WordField";
import classes from "../../desk/Desk.module.css";
import { BandAndLength, CentreField, ReferenceLine } from "../../desk/RecordFields";
import { BoardPhoto } from "./BoardPhoto";
import type { SentenceProps } from "./kinds";

const MILLI = 1e-3;

/** What is looked at where on the board, as one sentence. */
export function PlaceSentence({ model, recording, job }: SentenceProps<PlaceSettings>) {
  const { state, problem, change, frame } = model;
  const s = state?.settings;
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: { ...s, startSeconds: 0 }, recording, wrong, change };
  const edge = (field: "acrossMetres" | "upMetres", label: string) => (
    <QuantityField
      label={label}
      unit=""
      suffix="mm"
      value={s[field] / MILLI}
      error={wrong(field)}
      next={(v, up) => Math.max(0, v + (up ? 1 : -1))}
      onCommit={(v) => change({ [field]: v * MILLI })}
    />
  );
  return (
    <div className={classes.sentence}>
      level near <CentreField of={of} step={0.1 * s.bandHz} />
      <br />
      <BandAndLength of={of} bandHz={s.bandHz} onBand={(bandHz) => change({ bandHz })} />
      <br />
      probe over{" "}
      <WordField
        label="Place"
        value={s.place}
        none="a place"
        error={wrong("place")}
        onCommit={(place) => change({ place })}
      />
      <br />
      {edge("acrossMetres", "Across")} from the left, {edge("upMetres", "Up")} up
      <br />
      board{" "}
      <WordField
        label="State of the board"
        value={s.state}
        none="as it is"
        error={wrong("state")}
        onCommit={(next) => change({ state: next })}
      />
      {job && <BoardPhoto job={job} />}
      <ReferenceLine of={of} />
      {frame && (
        <Button
          size="compact-sm"
          variant="default"
          mt={4}
          onClick={() => change({ map: s.map + 1 })}
        >
          Begin a new map
        </Button>
      )}
    </div>
  );
}
