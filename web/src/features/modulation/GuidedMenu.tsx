import { Button, Menu } from "@mantine/core";
import { useState } from "react";
import { later } from "../../components/later";

const WorkForm = later(async () => (await import("../receiver/WorkForm")).WorkForm);
const OwnShareForm = later(async () => (await import("./OwnShareForm")).OwnShareForm);

type Asking = "level-run" | "sensitivity" | "own-share";

/** Work of several looks that leads to a finding. */
export function GuidedMenu(props: {
  model: {
    guide: (work: { kind: string; [field: string]: unknown }) => unknown;
    state?: { guided?: unknown } | null;
  };
  /** Of a recording one can only ask what it is. */
  recording: boolean;
  /** Carriers with data offer more; others are judged by their SINAD. */
  onWhatIsIt?: () => void;
  onLastFinding?: () => void;
}) {
  const { model, recording, onWhatIsIt } = props;
  const [asking, setAsking] = useState<Asking | null>(null);
  if (recording && !onWhatIsIt) {
    return null;
  }
  return (
    <>
      <Menu position="bottom-start" withinPortal>
        <Menu.Target>
          <Button size="compact-sm" variant="light" disabled={model.state?.guided != null}>
            Guided
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {onWhatIsIt && <Menu.Item onClick={onWhatIsIt}>What is it?</Menu.Item>}
          {!recording && (
            <>
              {onWhatIsIt && (
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
                  <Menu.Item onClick={() => setAsking("own-share")}>
                    The receiver's own share ...
                  </Menu.Item>
                </>
              )}
              <Menu.Item onClick={() => setAsking("level-run")}>
                Level against quality ...
              </Menu.Item>
              <Menu.Item onClick={() => setAsking("sensitivity")}>Sensitivity ...</Menu.Item>
            </>
          )}
          {props.onLastFinding && (
            <Menu.Item onClick={props.onLastFinding}>Show the last finding</Menu.Item>
          )}
        </Menu.Dropdown>
      </Menu>
      {asking === "own-share" && <OwnShareForm model={model} onClose={() => setAsking(null)} />}
      {asking && asking !== "own-share" && (
        <WorkForm
          work={asking}
          model={model}
          facts={undefined}
          quality={onWhatIsIt ? "ber" : "sinad"}
          onClose={() => setAsking(null)}
        />
      )}
    </>
  );
}
