import { Text } from "@mantine/core";
import type { Trigger } from "../../api/client";
import { Choice } from "../../desk/Choice";
import { ANSWER_TRAININGS, numbered } from "../waveforms/codings";
import { UsersSentence } from "../waveforms/UsersSentence";

/** A trigger to begin with: half of 20 MHz. */
export const FIRST_TRIGGER: Trigger = {
  training: 1,
  users: [{ tones: 106, place: 1, station: 1, mcs: 7, levelDb: null }],
  lowDensity: null,
};

/** What packets answer that do not say it themselves. */
export function TriggerSentence(props: {
  trigger: Trigger | null;
  error?: string;
  onChange: (trigger: Trigger | null) => void;
}) {
  const { trigger, error, onChange } = props;
  return (
    <>
      answers to a trigger{" "}
      <Choice
        label="Answers to a trigger"
        value={trigger ? "told" : "none"}
        choices={{ none: "not read", told: "as it asked" }}
        onChange={(v) => onChange(v === "told" ? FIRST_TRIGGER : null)}
      />
      {trigger && (
        <>
          : training and guard{" "}
          <Choice
            label="Training of the answers"
            value={String(trigger.training)}
            choices={numbered(ANSWER_TRAININGS)}
            onChange={(v) => onChange({ ...trigger, training: Number(v) })}
          />
          , code{" "}
          <Choice
            label="Code of the answers"
            value={trigger.lowDensity ? "dense" : "usual"}
            choices={{ usual: "convolutional", dense: "LDPC" }}
            onChange={(v) => onChange({ ...trigger, lowDensity: v === "dense" })}
          />
          <UsersSentence
            received
            users={trigger.users}
            onChange={(users) => onChange({ ...trigger, users })}
          />
        </>
      )}
      {error && (
        <Text c="red" fz="xs">
          {error}
        </Text>
      )}
    </>
  );
}
