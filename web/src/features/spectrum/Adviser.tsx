import { SimpleGrid, Text } from "@mantine/core";
import { useState } from "react";
import { api } from "../../api/client";
import type { components } from "../../api/schema";
import { formatHertz } from "../../components/units";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import type { SpectrumModel } from "./useSpectrum";

type Advice = components["schemas"]["ResolutionAdvice"];

/** Says whether two lines, or the side lines of a modulation, stand apart, and offers the RBW. */
export function Adviser(props: {
  model: SpectrumModel;
  spacingHz: number | null;
  differenceDb: number | null;
  onClose: () => void;
}) {
  const { model } = props;
  const header = model.frame?.header;
  const draft = useDraft({
    spacing: props.spacingHz ? formatHertz(Math.round(props.spacingHz)) : "5 kHz",
    difference: props.differenceDb ? String(Math.round(props.differenceDb)) : "0",
  });
  const [advice, setAdvice] = useState<Advice | null>(null);
  const rbw = header?.rbwHz ?? model.state?.settings.rbwHz ?? 1e3;
  const ask = () =>
    draft.attempt(async () => {
      const spacing = draft.number("spacing", "Hz");
      const difference = Math.abs(draft.number("difference", "dB") ?? 0);
      setAdvice(
        await api.get<Advice>(
          `/api/advice/resolution?spacingHz=${spacing ?? 0}&differenceDb=${difference}&rbwHz=${rbw}&window=${model.state?.settings.window ?? "HANN"}`,
        ),
      );
      return "";
    });
  const take = () =>
    draft.attempt(async () => {
      const wrong = await model.change({
        rbwHz: Number(((advice?.cleanRbwHz ?? rbw) * 0.999).toPrecision(3)),
        fftLength: 0,
      });
      if (!wrong) {
        props.onClose();
      }
      return wrong;
    });
  return (
    <FormModal
      title="Do two lines stand apart?"
      done={advice && advice.separation !== "CLEAN" ? `Take RBW ${nice(advice.cleanRbwHz)}` : "Ask"}
      wrong={draft.wrong}
      onClose={props.onClose}
      onDone={advice && advice.separation !== "CLEAN" ? take : ask}
    >
      <SimpleGrid cols={2}>
        <DraftField draft={draft} field="spacing" label="Distance, or modulation rate" first />
        <DraftField draft={draft} field="difference" label="Weaker one lower by (dB)" />
      </SimpleGrid>
      {advice && (
        <Text data-testid="advice">
          With an RBW of {nice(rbw)} they are <b>{advice.words}</b>. The coarsest RBW that is clean
          is {nice(advice.cleanRbwHz)}.
        </Text>
      )}
    </FormModal>
  );
}

const nice = (hz: number) => formatHertz(Number(hz.toPrecision(3)));
