import { Alert, Button, Group, Modal, Stack, TextInput } from "@mantine/core";
import type { ReactNode } from "react";
import type { useDraft } from "./useDraft";

/** A dialog with fields, what is wrong with them, and two ways out. */
export function FormModal(props: {
  title: string;
  wrong: string;
  done: string;
  size?: string;
  onClose: () => void;
  onDone: () => void;
  children: ReactNode;
}) {
  return (
    <Modal opened onClose={props.onClose} title={props.title} size={props.size ?? "md"}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          props.onDone();
        }}
      >
        <Stack gap="sm">
          {props.children}
          {props.wrong && (
            <Alert color="red" variant="light" p={8}>
              {props.wrong}
            </Alert>
          )}
          <Group justify="flex-end">
            <Button variant="default" onClick={props.onClose}>
              Leave it
            </Button>
            <Button type="submit">{props.done}</Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}

/** One field of a draft. */
export function DraftField(props: {
  draft: ReturnType<typeof useDraft>;
  field: string;
  label: string;
  placeholder?: string;
  first?: boolean;
}) {
  return (
    <TextInput
      label={props.label}
      placeholder={props.placeholder}
      data-autofocus={props.first || undefined}
      value={props.draft.texts[props.field] ?? ""}
      styles={{ input: { fontFamily: "var(--mantine-font-family-monospace)" } }}
      onChange={(e) => props.draft.set(props.field, e.currentTarget.value)}
    />
  );
}
