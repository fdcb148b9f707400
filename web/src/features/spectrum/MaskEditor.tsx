import { Button, FileButton, Text, Textarea } from "@mantine/core";
import { FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import { maskToText, textToMask } from "./maskText";
import type { SpectrumModel } from "./useSpectrum";

const EXAMPLE = "37.5k, 62.5k, trace, -30, -45\n62.5k, 150k, trace, -55, -55, -36, -36";

/** A mask written as lines, or read from a file of such lines. */
export function MaskEditor({ model, onClose }: { model: SpectrumModel; onClose: () => void }) {
  const now = model.state?.settings.view.mask;
  const draft = useDraft({ mask: now ? maskToText(now) : EXAMPLE });
  const done = () =>
    draft.attempt(async () => {
      const mask = textToMask(draft.texts.mask);
      const wrong = mask.length
        ? await model.changeView({ mask })
        : "Write at least one segment, a line each.";
      if (!wrong) {
        onClose();
      }
      return wrong;
    });
  return (
    <FormModal
      title="Emission mask"
      done="Judge by it"
      size="lg"
      wrong={draft.wrong}
      onClose={onClose}
      onDone={done}
    >
      <Text fz="sm">
        A line a segment: from and to offset, measuring bandwidth (or "trace"), limit at both ends
        in dBc relative to the channel power, absolute limit at both ends in dBm. Leave out what
        does not apply; where both are given the higher one holds. A segment counts on both sides.
      </Text>
      <Textarea
        label="Segments"
        data-autofocus
        rows={7}
        value={draft.texts.mask}
        styles={{ input: { fontFamily: "var(--mantine-font-family-monospace)" } }}
        onChange={(e) => draft.set("mask", e.currentTarget.value)}
      />
      <FileButton
        accept=".csv,text/csv,text/plain"
        onChange={async (file) => file && draft.set("mask", await file.text())}
      >
        {(p) => (
          <Button {...p} size="compact-sm" variant="light" w="fit-content">
            Read a file
          </Button>
        )}
      </FileButton>
    </FormModal>
  );
}
