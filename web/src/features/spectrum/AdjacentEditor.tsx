import { Button, SimpleGrid, Text } from "@mantine/core";
import { useState } from "react";
import { formatHertz } from "../../components/units";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import type { SpectrumModel } from "./useSpectrum";

const MOST = 4;

/** Own channel and the channels beside it, with filters and limits. */
export function AdjacentEditor({ model, onClose }: { model: SpectrumModel; onClose: () => void }) {
  const now = model.state?.settings.view.adjacent;
  const channel = model.state?.settings.channelWidthHz ?? 75e3;
  const own = now?.ownWidthHz ?? channel;
  const text = (v: number | null | undefined) => (v === null || v === undefined ? "" : String(v));
  const hertz = (v: number) => formatHertz(v);
  const [count, setCount] = useState(now?.channels.length ?? 2);
  const initial: Record<string, string> = { own: hertz(own), ownRollOff: text(now?.ownRollOff) };
  for (let i = 0; i < MOST; i++) {
    const c = now?.channels[i];
    initial[`offset${i}`] = hertz(c?.offsetHz ?? own * (i + 1));
    initial[`width${i}`] = hertz(c?.widthHz ?? own);
    initial[`rollOff${i}`] = text(c?.rollOff);
    initial[`limit${i}`] = text(c?.highestDbc);
  }
  const draft = useDraft(initial);
  const need = (field: string, unit: string, what: string) => {
    const value = draft.number(field, unit);
    if (value === null) {
      throw new Error(`${what} is missing.`);
    }
    return value;
  };
  const done = () =>
    draft.attempt(async () => {
      const channels = Array.from({ length: count }, (_, i) => ({
        offsetHz: need(`offset${i}`, "Hz", "An offset"),
        widthHz: need(`width${i}`, "Hz", "A width"),
        rollOff: draft.number(`rollOff${i}`, ""),
        highestDbc: draft.number(`limit${i}`, "dB"),
      }));
      const wrong = await model.changeView({
        adjacent: {
          ownWidthHz: need("own", "Hz", "The width of the own channel"),
          ownRollOff: draft.number("ownRollOff", ""),
          channels,
        },
      });
      if (!wrong) {
        onClose();
      }
      return wrong;
    });
  return (
    <FormModal
      title="Adjacent channels"
      done="Read them"
      size="xl"
      wrong={draft.wrong}
      onClose={onClose}
      onDone={done}
    >
      <Text fz="sm">
        A roll-off makes the width a symbol rate behind a root-raised-cosine filter; without one the
        channel is a rectangle.
      </Text>
      <SimpleGrid cols={4}>
        <DraftField draft={draft} field="own" label="Own channel, width" first />
        <DraftField draft={draft} field="ownRollOff" label="Roll-off" placeholder="rectangle" />
      </SimpleGrid>
      {Array.from({ length: count }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows are only added and taken at the end
        <SimpleGrid cols={4} key={i}>
          <DraftField draft={draft} field={`offset${i}`} label="Offset, both sides" />
          <DraftField draft={draft} field={`width${i}`} label="Width" />
          <DraftField
            draft={draft}
            field={`rollOff${i}`}
            label="Roll-off"
            placeholder="rectangle"
          />
          <DraftField draft={draft} field={`limit${i}`} label="At most (dBc)" placeholder="any" />
        </SimpleGrid>
      ))}
      <div>
        <Button
          size="compact-sm"
          variant="light"
          disabled={count >= MOST}
          onClick={() => setCount(count + 1)}
        >
          Add a channel
        </Button>{" "}
        <Button
          size="compact-sm"
          variant="subtle"
          disabled={count <= 1}
          onClick={() => setCount(count - 1)}
        >
          Take the last away
        </Button>
      </div>
    </FormModal>
  );
}
