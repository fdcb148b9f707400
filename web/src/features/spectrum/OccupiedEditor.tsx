import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { formatHertz } from "../../components/units";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import type { SpectrumModel } from "./useSpectrum";

/** Occupied bandwidth by a share of the power or by a fall in dB, with a limit. */
export function OccupiedEditor({ model, onClose }: { model: SpectrumModel; onClose: () => void }) {
  const now = model.state?.settings.view.occupied;
  const [by, setBy] = useState(now && now.xDb !== null ? "fall" : "share");
  const draft = useDraft({
    share: String((now?.share ?? 0.99) * 100),
    xDb: String(now?.xDb ?? 26),
    widest: now?.widestHz ? formatHertz(now.widestHz) : "",
  });
  const done = () =>
    draft.attempt(async () => {
      const wrong = await model.changeView({
        occupied: {
          share: (draft.number("share", "") ?? 99) / 100,
          xDb: by === "fall" ? draft.number("xDb", "dB") : null,
          widestHz: draft.number("widest", "Hz"),
        },
      });
      if (!wrong) {
        onClose();
      }
      return wrong;
    });
  return (
    <FormModal
      title="Occupied bandwidth"
      done="Read it"
      wrong={draft.wrong}
      onClose={onClose}
      onDone={done}
    >
      <SegmentedControl
        data={[
          { value: "share", label: "by share of the power" },
          { value: "fall", label: "by fall from the highest point" },
        ]}
        value={by}
        onChange={setBy}
      />
      {by === "share" ? (
        <DraftField draft={draft} field="share" label="Share inside (%)" first />
      ) : (
        <DraftField draft={draft} field="xDb" label="Fall (dB)" first />
      )}
      <DraftField draft={draft} field="widest" label="Widest allowed (Hz)" placeholder="no limit" />
    </FormModal>
  );
}
