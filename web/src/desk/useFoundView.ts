import { useState } from "react";
import { hasPicture } from "./outcomes";
import { useFinding } from "./useFinding";

/** The newest finding of guided work where it takes the place of the tiles, until it is closed. */
export function useFoundView(model: Parameters<typeof useFinding>[0]) {
  const [closed, setClosed] = useState<number | null>(null);
  const finding = useFinding(model);
  // What was found before this window looked is not shown unless it is asked for.
  if (model.state && closed === null) {
    setClosed(model.state.findingId);
  }
  const shown =
    finding !== undefined && finding.id !== closed && hasPicture(finding.outcome)
      ? finding
      : undefined;
  return {
    shown,
    close: () => finding && setClosed(finding.id),
    /** Shows it again; undefined if there is none to show. */
    again: finding && !shown ? () => setClosed(0) : undefined,
  };
}
