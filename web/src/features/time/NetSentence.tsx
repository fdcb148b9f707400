import { Button, Text } from "@mantine/core";
import type { NetSettings } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatEngineering } from "../../components/units";
import { WordField } from "../../components/WordField";
import { Choice } from "../../desk/Choice";
import classes from "../../desk/Desk.module.css";
import { BandAndLength, CentreField, ReferenceLine } from "../../desk/RecordFields";
import { useInstruments } from "../../desk/useInstruments";
import type { SentenceProps } from "./kinds";

/** The settings that are times and not the length of a look. */
type Times = "coincidentSeconds" | "togetherSeconds" | "restSeconds" | "laterSeconds";

/** Which bursts are compared with which nets, as one sentence. */
export function NetSentence({ model, recording }: SentenceProps<NetSettings>) {
  const { state, problem, change, frame } = model;
  const { data: instruments = [] } = useInstruments();
  const scopes = instruments.filter((i) => i.kind === "OSCILLOSCOPE");
  const s = state?.settings;
  if (recording) {
    return (
      <Text fz="sm">A recording has no voltages beside it. Choose a receiver with a trigger.</Text>
    );
  }
  if (!s) {
    return <Text fz="sm">no source</Text>;
  }
  const wrong = (field: string) => (problem?.field === field ? problem.message : undefined);
  const of = { settings: { ...s, startSeconds: 0 }, recording, wrong, change };
  const time = (field: Times, label: string) => (
    <QuantityField
      label={label}
      unit="s"
      value={s[field]}
      error={wrong(field)}
      format={(v) => formatEngineering(v, "s")}
      onCommit={(v) => change({ [field]: v })}
    />
  );
  const ranked = frame?.outcome.tables.find((t) => t.id === "ranking")?.rows.length ?? 0;
  return (
    <div className={classes.sentence}>
      bursts near <CentreField of={of} step={0.1 * s.bandHz} />
      <br />
      <BandAndLength of={of} bandHz={s.bandHz} onBand={(bandHz) => change({ bandHz })} />
      <br />
      channel 1 touches{" "}
      <WordField
        label="Net at channel 1"
        value={s.net1}
        none="nothing"
        error={wrong("net1")}
        onCommit={(net1) => change({ net1 })}
      />
      <br />
      channel 2 touches{" "}
      <WordField
        label="Net at channel 2"
        value={s.net2}
        none="nothing"
        error={wrong("net2")}
        onCommit={(net2) => change({ net2 })}
      />
      {scopes.length > 1 && (
        <>
          <br />
          of{" "}
          <Choice
            label="Oscilloscope"
            value={String(s.oscilloscopeId ?? "")}
            choices={Object.fromEntries(scopes.map((i) => [String(i.id), i.name]))}
            onChange={(id) => change({ oscilloscopeId: Number(id) })}
          />
        </>
      )}
      <br />
      coincident in {time("coincidentSeconds", "Coincident within")}, lags alike in{" "}
      {time("togetherSeconds", "Lags alike within")}
      <br />
      edges within {time("restSeconds", "Rest")} are one activity
      <br />
      cables: oscilloscope later by {time("laterSeconds", "Later at the oscilloscope")}
      <ReferenceLine of={of} />
      {ranked > 0 && (
        <Button
          size="compact-sm"
          variant="default"
          mt={4}
          onClick={() => change({ ranking: s.ranking + 1 })}
        >
          Begin a new ranking
        </Button>
      )}
    </div>
  );
}
