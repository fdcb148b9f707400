import { Button, FileButton, Stack, Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import { useCommands } from "../../app/commands";
import { useKeys } from "../../app/useKeys";
import { parseQuantity } from "../../components/units";
import classes from "./NetworkPage.module.css";
import { NetworkSide } from "./NetworkSide";
import { NetworkSteps } from "./NetworkSteps";
import type { ChartMarker } from "./SmithChart";
import { Tile } from "./Tile";
import { TimeTile } from "./TimeTile";
import { useNetworks } from "./useNetworks";

/** S-parameters of files: views, corrections, worst values, distance. */
export function NetworkPage() {
  const model = useNetworks();
  const queries = useQueryClient();
  const [markers, setMarkers] = useState<ChartMarker[]>([]);
  const [zoom, setZoom] = useState<[number, number] | null>(null);
  const { setting, change } = model;
  const place = (hertz: number) =>
    setMarkers((all) => {
      let number = 1;
      while (all.some((m) => m.label === String(number))) {
        number++;
      }
      return all.length < 8 ? [...all, { label: String(number), hertz }] : all;
    });
  const best = () => {
    // The highest of a transmission, the best match of a reflection.
    const n = model.networks[0];
    const view = setting.views[0];
    const c = n?.curves[0];
    if (!n || !c) {
      return;
    }
    const y = c.y.length ? c.y : c.re.map((re, i) => -Math.hypot(re, c.im[i]));
    const sign = view.row === view.column && view.format === "LOG_MAGNITUDE" ? -1 : 1;
    let at = 0;
    y.forEach((v, i) => {
      at = v !== null && sign * v > sign * (y[at] ?? 0) ? i : at;
    });
    place(n.frequencyHz[at]);
  };
  const hertz = (text: string, act: (v: number) => void) => {
    const v = parseQuantity(text, "Hz");
    if (v === null) {
      return `"${text}" is not a frequency. Write it as 458.5M.`;
    }
    act(v);
    return "";
  };
  const distance = (on: boolean) => change({ time: { ...setting.time, on } });
  useKeys({
    m: best,
    t: () => distance(!setting.time.on),
    Escape: () => setZoom(null),
  });
  useCommands([
    {
      name: "marker",
      argument: "<frequency>",
      hint: "marker in all views",
      run: (v: string) => {
        if (v) {
          return hertz(v, place);
        }
        best();
        return "";
      },
    },
    {
      name: "band from",
      argument: "<frequency>",
      hint: "lower edge of the worst values",
      run: (v: string) => hertz(v, (bandFromHz) => change({ bandFromHz })),
    },
    {
      name: "band to",
      argument: "<frequency>",
      hint: "upper edge of the worst values",
      run: (v: string) => hertz(v, (bandToHz) => change({ bandToHz })),
    },
    {
      name: "distance",
      argument: "",
      hint: "show or hide the reflection over distance",
      run: () => {
        distance(!setting.time.on);
        return "";
      },
    },
    {
      name: "clear",
      argument: "",
      hint: "take markers away, whole band",
      run: () => {
        setMarkers([]);
        setZoom(null);
        return "";
      },
    },
  ]);
  const remove = async (id: number) => {
    try {
      await api.remove(`/api/networks/${id}`);
      await queries.invalidateQueries({ queryKey: ["networks"] });
    } catch (e) {
      model.setRefused((e as Error).message);
    }
  };
  if (model.files?.length === 0) {
    return (
      <Stack align="center" justify="center" h="100%">
        <Text>No part is known yet. Open a Touchstone file (.s1p to .s32p, version 1 or 2).</Text>
        <FileButton onChange={model.open}>
          {(p) => <Button {...p}>Open a Touchstone file</Button>}
        </FileButton>
        {model.wrong && <Text c="red">{model.wrong}</Text>}
      </Stack>
    );
  }
  const below = setting.time.on ? Math.min(setting.count, 2) : setting.count;
  const tiles = below + (setting.time.on ? 1 : 0);
  return (
    <div className={classes.page}>
      <aside className={classes.steps} aria-label="Steps">
        <NetworkSteps model={model} onRemove={remove} />
      </aside>
      <div className={classes.tiles} data-count={Math.min(4, tiles)}>
        {setting.time.on && <TimeTile model={model} />}
        {setting.views.slice(0, below).map((_, i) => (
          <Tile
            // biome-ignore lint/suspicious/noArrayIndexKey: views are numbered
            key={i}
            model={model}
            pane={i}
            markers={markers}
            zoom={zoom}
            onZoom={setZoom}
            onPlace={place}
          />
        ))}
      </div>
      <aside className={classes.side} aria-label="Readings">
        <NetworkSide
          model={model}
          markers={markers}
          onRemove={(label) => setMarkers(markers.filter((m) => m.label !== label))}
        />
      </aside>
    </div>
  );
}
