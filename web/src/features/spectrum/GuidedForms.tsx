import { SegmentedControl, SimpleGrid, Text, Textarea } from "@mantine/core";
import { useState } from "react";
import type { SurveyRange } from "../../api/client";
import { formatHertz, parseQuantity } from "../../components/units";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";
import type { SpectrumModel } from "./useSpectrum";

/** Work that asks something first. */
export type Asked = "harmonics" | "drive-sweep" | "phase-noise" | "survey" | "noise-figure";

const TITLES: Record<Asked, string> = {
  harmonics: "Harmonics",
  "drive-sweep": "Drive against harmonics",
  "phase-noise": "Phase noise",
  survey: "Spurious survey",
  "noise-figure": "Noise figure by the Y factor",
};

function rangesOf(text: string): SurveyRange[] {
  return text
    .split(/\r?\n/)
    .filter((l) => l.trim() && !l.trim().startsWith("#"))
    .map((line, i) => {
      const cells = line.split(/[,;\t]/).map((c) => c.trim());
      const hertz = [0, 1, 2].map((k) => parseQuantity(cells[k] ?? "", "Hz"));
      const limitDbm = parseQuantity(cells[3] ?? "", "dBm");
      const bad = hertz.indexOf(null);
      if (bad >= 0 || limitDbm === null) {
        throw new Error(
          `Range ${i + 1}: "${cells[bad >= 0 ? bad : 3] ?? ""}" cannot be read. Write start, stop, RBW, limit.`,
        );
      }
      const [startHz, stopHz, rbwHz] = hertz as number[];
      const detector = (cells[4] ?? "RMS").toUpperCase() as SurveyRange["detector"];
      return { startHz, stopHz, rbwHz, limitDbm, detector };
    });
}

/** What a guided work must be told before it begins. */
export function GuidedForm(props: { kind: Asked; model: SpectrumModel; onClose: () => void }) {
  const { kind, model, onClose } = props;
  const s = model.state?.settings;
  const carrier = model.frame?.header.peaks[0]?.frequencyHz ?? s?.centreHz ?? 0;
  const half = (s?.channelWidthHz ?? 75e3) * 2;
  const grid = 10 ** Math.floor(Math.log10(half / 10));
  const around = (hz: number) => formatHertz(Math.round(hz / grid) * grid);
  const draft = useDraft({
    highest: "5",
    limit: "-36",
    from: "17",
    to: "29",
    steps: "7",
    toHz: "1M",
    excess: "",
    cold: "",
    figure: "",
    ranges: "100M, 450M, 100k, -36\n450M, 470M, 10k, -36\n470M, 1G, 100k, -36\n1G, 4G, 1M, -30",
    excludeFrom: around(carrier - half),
    excludeTo: around(carrier + half),
  });
  const [alone, setAlone] = useState("device");
  const need = (field: string, unit: string) => draft.number(field, unit) ?? 0;
  const done = () =>
    draft.attempt(async () => {
      const work =
        kind === "harmonics"
          ? { kind, highest: need("highest", ""), limitDbm: draft.number("limit", "dBm") }
          : kind === "drive-sweep"
            ? {
                kind,
                fromDbm: need("from", "dBm"),
                toDbm: need("to", "dBm"),
                steps: need("steps", ""),
              }
            : kind === "phase-noise"
              ? { kind, toHz: need("toHz", "Hz") }
              : kind === "noise-figure"
                ? {
                    kind,
                    receiverAlone: alone === "alone",
                    excessNoiseDb: draft.number("excess", "dB"),
                    coldKelvin: draft.number("cold", "") ?? 290,
                    limitDb: draft.number("figure", "dB"),
                  }
                : {
                    kind,
                    ranges: rangesOf(draft.texts.ranges),
                    excludeFromHz: need("excludeFrom", "Hz"),
                    excludeToHz: need("excludeTo", "Hz"),
                  };
      onClose();
      await model.guide(work);
      return "";
    });
  return (
    <FormModal
      title={TITLES[kind]}
      done="Start"
      wrong={draft.wrong}
      onClose={onClose}
      onDone={done}
    >
      {kind === "harmonics" && (
        <SimpleGrid cols={2}>
          <DraftField draft={draft} field="highest" label="Up to order (2 to 10)" first />
          <DraftField draft={draft} field="limit" label="At most (dBm)" placeholder="no limit" />
        </SimpleGrid>
      )}
      {kind === "drive-sweep" && (
        <>
          <Text fz="sm">The source is set back to its level at the end.</Text>
          <SimpleGrid cols={3}>
            <DraftField draft={draft} field="from" label="From (dBm)" first />
            <DraftField draft={draft} field="to" label="To (dBm)" />
            <DraftField draft={draft} field="steps" label="Levels" />
          </SimpleGrid>
        </>
      )}
      {kind === "phase-noise" && (
        <DraftField draft={draft} field="toHz" label="Farthest offset (10 kHz to 10 MHz)" first />
      )}
      {kind === "noise-figure" && (
        <>
          <Text fz="sm">
            First with the source straight at the receiver, then with the device between them, at
            the same centre and channel.
          </Text>
          <SegmentedControl
            aria-label="What is behind the source"
            data={[
              { value: "alone", label: "receiver alone" },
              { value: "device", label: "device and receiver" },
            ]}
            value={alone}
            onChange={setAlone}
          />
          <SimpleGrid cols={3}>
            <DraftField
              draft={draft}
              field="excess"
              label="Excess ratio (dB)"
              placeholder="as on its label"
              first
            />
            <DraftField draft={draft} field="cold" label="Cold source (K)" placeholder="290" />
            <DraftField draft={draft} field="figure" label="At most (dB)" placeholder="no limit" />
          </SimpleGrid>
        </>
      )}
      {kind === "survey" && (
        <>
          <Textarea
            label="Ranges, a line each: start, stop, RBW, limit in dBm, detector (RMS if left out)"
            data-autofocus
            rows={6}
            value={draft.texts.ranges}
            styles={{ input: { fontFamily: "var(--mantine-font-family-monospace)" } }}
            onChange={(e) => draft.set("ranges", e.currentTarget.value)}
          />
          <SimpleGrid cols={2}>
            <DraftField draft={draft} field="excludeFrom" label="Wanted emission from" />
            <DraftField draft={draft} field="excludeTo" label="to" />
          </SimpleGrid>
        </>
      )}
    </FormModal>
  );
}
