import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  api,
  type NetworkReading,
  type NetworkSummary,
  type NetworkViewRequest,
  type PortExtension,
  type ShownNetwork,
} from "../../api/client";
import { paneOf, type View } from "./panes";

export interface TimeSetting {
  on: boolean;
  row: number;
  mode: "BAND_PASS" | "IMPULSE" | "STEP";
  shape: "SHARP" | "BALANCED" | "CLEAN";
  velocityFactor: number;
  gated: boolean;
  fromMetres: number;
  toMetres: number;
}

export interface NetworkSetting {
  shown: number[];
  views: View[];
  count: number;
  smoothing: number;
  apertureHz: number;
  firstPart: number | null;
  lastPart: number | null;
  extensions: (PortExtension | null)[];
  referenceOhm: number | null;
  time: TimeSetting;
  bandFromHz: number;
  bandToHz: number;
}

const FIRST: NetworkSetting = {
  shown: [],
  views: [
    { row: 2, column: 1, format: "LOG_MAGNITUDE" },
    { row: 1, column: 1, format: "SMITH" },
    { row: 1, column: 1, format: "RETURN_LOSS" },
    { row: 2, column: 1, format: "GROUP_DELAY" },
  ],
  count: 2,
  smoothing: 0,
  apertureHz: 0,
  firstPart: null,
  lastPart: null,
  extensions: [null, null],
  referenceOhm: null,
  time: {
    on: false,
    row: 1,
    mode: "BAND_PASS",
    shape: "BALANCED",
    velocityFactor: 0.85,
    gated: false,
    fromMetres: 0,
    toMetres: 10,
  },
  bandFromHz: Number.NaN,
  bandToHz: Number.NaN,
};

function stored(): NetworkSetting {
  const text = sessionStorage.getItem("rovnik-network");
  const kept = text ? (JSON.parse(text) as NetworkSetting) : FIRST;
  // JSON knows no NaN.
  return {
    ...kept,
    bandFromHz: kept.bandFromHz ?? Number.NaN,
    bandToHz: kept.bandToHz ?? Number.NaN,
  };
}

function requestOf(s: NetworkSetting): NetworkViewRequest {
  const none = { delaySeconds: 0, lossDb: 0, atHz: 1e9 };
  const t = s.time;
  return {
    networks: s.shown,
    panes: s.views.slice(0, s.count).map(paneOf),
    smoothing: s.smoothing,
    apertureHz: s.apertureHz,
    change: {
      firstPart: s.firstPart,
      lastPart: s.lastPart,
      extensions: s.extensions.some(Boolean) ? s.extensions.map((e) => e ?? none) : null,
      referenceOhm: s.referenceOhm,
    },
    time: t.on
      ? {
          row: t.row,
          column: t.row,
          mode: t.mode,
          shape: t.shape,
          velocityFactor: t.velocityFactor,
          gate: t.gated ? { fromMetres: t.fromMetres, toMetres: t.toMetres } : null,
          leastFault: null,
        }
      : null,
  };
}

/** Everything that the Network screen does with its files. */
export function useNetworks() {
  const queries = useQueryClient();
  const [setting, setSetting] = useState(stored);
  const [refused, setRefused] = useState("");
  const change = (part: Partial<NetworkSetting>) =>
    setSetting((now) => {
      const next = { ...now, ...part };
      sessionStorage.setItem("rovnik-network", JSON.stringify(next));
      return next;
    });
  const { data: files } = useQuery({
    queryKey: ["networks"],
    queryFn: () => api.get<NetworkSummary[]>("/api/networks"),
  });
  const known = setting.shown.filter((id) => files?.some((f) => f.id === id));
  const shown = known.length ? known : files?.length ? [files[0].id] : [];
  const request = requestOf({ ...setting, shown });
  const view = useQuery({
    queryKey: ["network-view", request],
    queryFn: () => api.post<{ networks: ShownNetwork[] }>("/api/networks/view", request),
    enabled: shown.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const main = files?.find((f) => f.id === shown[0]);
  const from = Number.isNaN(setting.bandFromHz) ? (main?.startHz ?? 0) : setting.bandFromHz;
  const to = Number.isNaN(setting.bandToHz) ? (main?.stopHz ?? 0) : setting.bandToHz;
  const readings = useQuery({
    queryKey: ["network-readings", shown, from, to],
    queryFn: () =>
      Promise.all(
        shown.map((id, k) =>
          api
            .get<{ readings: NetworkReading[] }>(
              `/api/networks/${id}?readings=true&fromHz=${from}&toHz=${to}`,
            )
            .then((n) => n.readings)
            .catch((e) => {
              // What is laid over the first file may lie elsewhere: it has no figures then.
              if (k === 0) {
                throw e;
              }
              return [] as NetworkReading[];
            }),
        ),
      ),
    enabled: main !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const open = async (chosen: File | null) => {
    if (!chosen) {
      return;
    }
    const form = new FormData();
    form.append("file", chosen);
    try {
      const made = await api.post<NetworkSummary>("/api/networks", form);
      await queries.invalidateQueries({ queryKey: ["networks"] });
      setRefused("");
      change({ shown: [made.id] });
    } catch (e) {
      setRefused((e as Error).message);
    }
  };
  return {
    setting,
    change,
    files,
    shown,
    networks: view.data?.networks ?? [],
    wrong: refused || (view.error as Error | null)?.message || "",
    readings: readings.data ?? [],
    readingsWrong: (readings.error as Error | null)?.message ?? "",
    band: [from, to] as const,
    open,
    setRefused,
  };
}

export type NetworkModel = ReturnType<typeof useNetworks>;
