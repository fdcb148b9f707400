import { Button, Menu } from "@mantine/core";
import { useState } from "react";
import { later } from "../../components/later";
import type { ModulationModel } from "./useModulation";

const WorkForm = later(async () => (await import("../receiver/WorkForm")).WorkForm);

/** Work of several looks that leads to a finding. */
export function GuidedMenu(props: {
  model: ModulationModel;
  /** Of a recording one can only ask what it is. */
  recording: boolean;
  onWhatIsIt: () => void;
  onLastFinding?: () => void;
}) {
  const { model, recording } = props;
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Menu position="bottom-start" withinPortal>
        <Menu.Target>
          <Button size="compact-sm" variant="light" disabled={model.state?.guided != null}>
            Guided
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={props.onWhatIsIt}>What is it?</Menu.Item>
          {!recording && (
            <>
              <Menu.Item onClick={() => model.guide({ kind: "trim", adjustFirst: false })}>
                Trim the generator until it is best
              </Menu.Item>
              <Menu.Item onClick={() => model.guide({ kind: "trim", adjustFirst: true })}>
                Let it adjust itself, then trim
              </Menu.Item>
              <Menu.Item onClick={() => model.guide({ kind: "front-end" })}>
                Front end of the receiver at its best
              </Menu.Item>
              <Menu.Item onClick={() => setAsking(true)}>Level against quality ...</Menu.Item>
            </>
          )}
          {props.onLastFinding && (
            <Menu.Item onClick={props.onLastFinding}>Show the last finding</Menu.Item>
          )}
        </Menu.Dropdown>
      </Menu>
      {asking && (
        <WorkForm
          work="level-run"
          model={model}
          facts={undefined}
          onClose={() => setAsking(false)}
        />
      )}
    </>
  );
}
