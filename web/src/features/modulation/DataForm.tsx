import type { CarrierDescription } from "../../api/client";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import type { Describe } from "./CarrierWhat";

const bare = (text: string | undefined) => (text ?? "").replace(/\s/g, "");

/** Bits of one's own, and the known word that begins each frame. */
export function DataForm(props: {
  carrier: CarrierDescription;
  onTake: Describe;
  onClose: () => void;
}) {
  const { carrier, onTake, onClose } = props;
  const draft = useDraft({
    bits: carrier.bits ?? "",
    word: carrier.word ?? "",
    every: carrier.wordEverySymbols ? String(carrier.wordEverySymbols) : "",
  });
  const done = () =>
    draft.attempt(async () => {
      const bits = bare(draft.texts.bits);
      const word = bare(draft.texts.word);
      const wrong = await onTake({
        bits: bits || null,
        prbs: bits ? null : (carrier.prbs ?? 9),
        word: word || null,
        wordEverySymbols: word ? draft.number("every", "") : null,
      });
      if (!wrong) {
        onClose();
      }
      return wrong;
    });
  return (
    <FormModal
      title="What the carrier sends"
      done="Take it"
      size="lg"
      wrong={draft.wrong}
      onClose={onClose}
      onDone={done}
    >
      <DraftField
        draft={draft}
        field="bits"
        label="Own bits, repeated; empty for the test sequence"
        placeholder="0110"
      />
      <DraftField
        draft={draft}
        field="word"
        label="Bits of the known word that begins a frame; empty for none"
        placeholder="1011 0011"
      />
      <DraftField
        draft={draft}
        field="every"
        label="Symbols from one word to the next"
        placeholder="2048"
      />
    </FormModal>
  );
}
