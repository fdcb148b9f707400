import { Button, Menu } from "@mantine/core";
import { useState } from "react";
import type { MarkerReading } from "../../api/client";
import { later } from "../../components/later";
import type { SpectrumModel } from "./useSpectrum";

const OccupiedEditor = later(async () => (await import("./OccupiedEditor")).OccupiedEditor);

const MaskEditor = later(async () => (await import("./MaskEditor")).MaskEditor);

const AdjacentEditor = later(async () => (await import("./AdjacentEditor")).AdjacentEditor);

interface Props {
  model: SpectrumModel;
  /** Where the marker stands, null if there is none. */
  markerHz: number | null;
}

/** Adds numbers to what is read: bandwidths, channels, masks, products. */
export function ReadingMenu({ model, markerHz }: Props) {
  const [editing, setEditing] = useState<"occupied" | "adjacent" | "mask" | null>(null);
  const view = model.state?.settings.view;
  if (!view) {
    return null;
  }
  const readAt = (kind: MarkerReading["kind"]) => {
    const rbw = model.frame?.header.rbwHz ?? 1e3;
    const channel = model.state?.settings.channelWidthHz ?? 75e3;
    const widthHz = kind === "COUNT" ? 20 * rbw : kind === "DENSITY" ? 10 * rbw : channel;
    model.changeView((now) => ({
      reads: [...now.reads, { kind, hertz: markerHz ?? 0, widthHz }],
    }));
  };
  return (
    <>
      <Menu position="left-start" withinPortal>
        <Menu.Target>
          <Button size="compact-xs" variant="subtle" aria-label="Add a reading">
            + reading
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => setEditing("occupied")}>Occupied bandwidth ...</Menu.Item>
          <Menu.Item onClick={() => setEditing("adjacent")}>Adjacent channels ...</Menu.Item>
          <Menu.Item onClick={() => setEditing("mask")}>Emission mask ...</Menu.Item>
          <Menu.Item onClick={() => model.changeView({ density: { highest: null } })}>
            Density in the channel
          </Menu.Item>
          <Menu.Item onClick={() => model.changeView({ twoTones: true })}>
            Third-order products of two tones
          </Menu.Item>
          <Menu.Item onClick={() => model.changeView({ amDepth: true })}>AM depth</Menu.Item>
          <Menu.Item onClick={() => model.changeView({ skirt: true })}>
            Skirt: leakage or real?
          </Menu.Item>
          <Menu.Divider />
          <Menu.Label>at the marker</Menu.Label>
          <Menu.Item disabled={markerHz === null} onClick={() => readAt("DENSITY")}>
            Noise density
          </Menu.Item>
          <Menu.Item disabled={markerHz === null} onClick={() => readAt("BAND")}>
            Power in a band
          </Menu.Item>
          <Menu.Item disabled={markerHz === null} onClick={() => readAt("COUNT")}>
            Counted frequency
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {editing === "occupied" && <OccupiedEditor model={model} onClose={() => setEditing(null)} />}
      {editing === "adjacent" && <AdjacentEditor model={model} onClose={() => setEditing(null)} />}
      {editing === "mask" && <MaskEditor model={model} onClose={() => setEditing(null)} />}
    </>
  );
}

/** Takes a reading away that was added; undefined for those that always are there. */
export function removeReading(model: SpectrumModel, id: string): (() => void) | undefined {
  const view = model.state?.settings.view;
  if (!view) {
    return undefined;
  }
  if (/^read\d+$/.test(id)) {
    const index = Number(id.slice(4));
    return () => model.changeView((now) => ({ reads: now.reads.filter((_, i) => i !== index) }));
  }
  const parts: Record<string, Parameters<SpectrumModel["changeView"]>[0]> = {
    occupiedBandwidth: { occupied: null },
    adjacentWorst: { adjacent: null },
    maskMargin: { mask: null },
    channelDensity: { density: null },
    thirdOrder: { twoTones: false },
    intercept: { twoTones: false },
    amDepth: { amDepth: false },
  };
  return parts[id] && (() => model.changeView(parts[id]));
}
