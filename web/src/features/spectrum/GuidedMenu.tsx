import { Button, Menu } from "@mantine/core";
import { useState } from "react";
import { later } from "../../components/later";
import type { Asked } from "./GuidedForms";
import type { SpectrumModel } from "./useSpectrum";

const GuidedForm = later(async () => (await import("./GuidedForms")).GuidedForm);

/** Work of several looks that leads to a finding. */
export function GuidedMenu(props: { model: SpectrumModel; onLastFinding?: () => void }) {
  const { model } = props;
  const [asked, setAsked] = useState<Asked | null>(null);
  return (
    <>
      <Menu position="bottom-start" withinPortal>
        <Menu.Target>
          <Button size="compact-sm" variant="light" disabled={model.state?.guided != null}>
            Guided
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => model.guide({ kind: "auto-frame" })}>
            Auto frame: find and frame what is there
          </Menu.Item>
          <Menu.Item onClick={() => model.guide({ kind: "whose-line", stepDb: 10 })}>
            Whose line is it? 10 dB step
          </Menu.Item>
          <Menu.Item onClick={() => model.guide({ kind: "whose-line", stepDb: 4 })}>
            Whose line is it? 4 dB step
          </Menu.Item>
          <Menu.Item onClick={() => setAsked("harmonics")}>Harmonics ...</Menu.Item>
          <Menu.Item onClick={() => setAsked("drive-sweep")}>Drive against harmonics ...</Menu.Item>
          <Menu.Item onClick={() => setAsked("phase-noise")}>Phase noise ...</Menu.Item>
          <Menu.Item onClick={() => model.guide({ kind: "line-trim", adjustFirst: false })}>
            Trim the generator by carrier and image
          </Menu.Item>
          <Menu.Item onClick={() => setAsked("survey")}>Spurious survey ...</Menu.Item>
          <Menu.Item onClick={() => model.guide({ kind: "weighted" })}>
            Quasi-peak and average of the strongest line
          </Menu.Item>
          <Menu.Item onClick={() => setAsked("noise-figure")}>Noise figure ...</Menu.Item>
          {props.onLastFinding && (
            <Menu.Item onClick={props.onLastFinding}>Show the last finding</Menu.Item>
          )}
        </Menu.Dropdown>
      </Menu>
      {asked && <GuidedForm kind={asked} model={model} onClose={() => setAsked(null)} />}
    </>
  );
}
