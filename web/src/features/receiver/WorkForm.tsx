import { SegmentedControl, SimpleGrid, Text } from "@mantine/core";
import { useState } from "react";
import type { ReceiverState } from "../../api/client";
import { parseQuantity } from "../../components/units";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import { QUALITIES, qualitiesOf, TARGETS, WORKS, type Work } from "./works";

/** Offsets in words: "-25k, 25k, 1M". */
function offsets(text: string): number[] {
  return text
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map((part) => {
      const hz = parseQuantity(part, "Hz");
      if (hz === null) {
        throw new Error(`"${part}" is no offset. Write them as -25k, 25k, 1M.`);
      }
      return hz;
    });
}

/** What work at several levels must be told before it begins. */
export function WorkForm(props: {
  work: Work;
  model: { guide: (work: { kind: string; [field: string]: unknown }) => unknown };
  /** What the receiver tells; undefined for one that is measured itself. */
  facts: ReceiverState["facts"] | undefined;
  /** What one that is measured itself is judged by. */
  quality?: string;
  onClose: () => void;
}) {
  const { work, model, facts, onClose } = props;
  const qualities = props.quality ? [props.quality] : qualitiesOf(facts);
  const voice = qualities[0] === "sinad";
  const [quality, setQuality] = useState(qualities[0]);
  const draft = useDraft({
    target: TARGETS[qualities[0]],
    from: voice ? "-90" : "-70",
    close: voice ? "0.3" : "0.1",
    minutes: "10",
    limit: "",
    high: facts ? (voice ? "-105" : "-90") : "-10",
    low: facts ? (voice ? "-130" : "-105") : "-90",
    step: facts ? (voice ? "2" : "1") : "5",
    seconds: facts && !voice ? "1" : "0.5",
    closed: "-130",
    open: "-110",
    squelchStep: "0.5",
    passages: "3",
    wanted: "",
    above: "3",
    offsets: voice ? "-25k, 0, 25k, 1M" : "-350k, 0, 350k, 2M",
    rejectionClose: "0.5",
  });
  const need = (field: string, unit: string) => draft.number(field, unit) ?? 0;
  const choose = (q: string) => {
    setQuality(q);
    draft.set("target", TARGETS[q]);
  };
  const told = () => {
    switch (work) {
      case "sensitivity":
        return {
          quality,
          target: draft.number("target", ""),
          fromDbm: need("from", "dBm"),
          wantedDb: need("close", "dB"),
          mostSeconds: 60 * need("minutes", ""),
          highestDbm: draft.number("limit", "dBm"),
        };
      case "level-run":
        return {
          fromDbm: need("high", "dBm"),
          toDbm: need("low", "dBm"),
          stepDb: need("step", "dB"),
          seconds: need("seconds", "s"),
        };
      case "squelch":
        return {
          closedDbm: need("closed", "dBm"),
          openDbm: need("open", "dBm"),
          stepDb: need("squelchStep", "dB"),
          passages: need("passages", ""),
        };
      case "rejection":
        return {
          quality,
          target: draft.number("target", ""),
          wantedDbm: draft.number("wanted", "dBm"),
          aboveDb: need("above", "dB"),
          offsetsHz: offsets(draft.texts.offsets),
          wantedDb: need("rejectionClose", "dB"),
        };
    }
  };
  const done = () =>
    draft.attempt(async () => {
      const form = told();
      onClose();
      await model.guide({ kind: work, ...form });
      return "";
    });
  const judged = (work === "sensitivity" || work === "rejection") && (
    <>
      {qualities.length > 1 && (
        <SegmentedControl
          size="sm"
          aria-label="Judged by"
          data={qualities.map((value) => ({ value, label: QUALITIES[value] }))}
          value={quality}
          onChange={choose}
        />
      )}
      <DraftField
        draft={draft}
        field="target"
        label={quality === "sinad" ? "SINAD that is just enough (dB)" : "Share that may be wrong"}
        first
      />
    </>
  );
  return (
    <FormModal title={WORKS[work]} done="Start" wrong={draft.wrong} onClose={onClose} onDone={done}>
      {judged}
      {work === "sensitivity" && (
        <>
          <SimpleGrid cols={2}>
            <DraftField draft={draft} field="from" label="It surely works at (dBm)" />
            <DraftField draft={draft} field="close" label="Chance leaves at most (± dB)" />
            <DraftField draft={draft} field="minutes" label="Ends after (minutes)" />
            <DraftField
              draft={draft}
              field="limit"
              label="Sensitivity at most (dBm)"
              placeholder="no limit"
            />
          </SimpleGrid>
          <Text fz="sm">
            It goes down until errors come, then looks where a second of it tells most. The level is
            set back at the end.
            {!facts && " The receiver stays as its reference level sets it."}
          </Text>
        </>
      )}
      {work === "level-run" && (
        <SimpleGrid cols={2}>
          <DraftField draft={draft} field="high" label="From (dBm)" first />
          <DraftField draft={draft} field="low" label="Down to (dBm)" />
          <DraftField draft={draft} field="step" label="Step (dB)" />
          <DraftField draft={draft} field="seconds" label="Listen at each (s)" />
        </SimpleGrid>
      )}
      {work === "squelch" && (
        <SimpleGrid cols={2}>
          <DraftField draft={draft} field="closed" label="Surely closed at (dBm)" first />
          <DraftField draft={draft} field="open" label="Surely open at (dBm)" />
          <DraftField draft={draft} field="squelchStep" label="Step (dB)" />
          <DraftField draft={draft} field="passages" label="Up and down so often" />
        </SimpleGrid>
      )}
      {work === "rejection" && (
        <>
          <SimpleGrid cols={2}>
            <DraftField
              draft={draft}
              field="wanted"
              label="Wanted signal (dBm)"
              placeholder="from the sensitivity found"
            />
            <DraftField draft={draft} field="above" label="Above the sensitivity (dB)" />
            <DraftField draft={draft} field="offsets" label="Offsets of the other signal" />
            <DraftField draft={draft} field="rejectionClose" label="Chance leaves at most (± dB)" />
          </SimpleGrid>
          <Text fz="sm">
            The generator at the combiner's other input sends what it is set to; 0 is the same
            channel. Both are set back at the end.
          </Text>
        </>
      )}
    </FormModal>
  );
}
