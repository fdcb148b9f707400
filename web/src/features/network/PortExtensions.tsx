import { Button } from "@mantine/core";
import { api, type PortExtension } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { formatHertz, formatSeconds } from "../../components/units";
import type { NetworkModel } from "./useNetworks";

const NONE: PortExtension = { delaySeconds: 0, lossDb: 0, atHz: 1e9 };

/** Lines between the calibrated plane and the part, by delay and loss. */
export function PortExtensions({ model, ports }: { model: NetworkModel; ports: number }) {
  const { setting, change, shown, live } = model;
  const put = (port: number, e: PortExtension) =>
    change({ extensions: setting.extensions.map((x, i) => (i === port - 1 ? e : x)) });
  const find = async (port: number) => {
    const source = live ? model.analyzer.url : `/api/networks/${shown[0]}`;
    try {
      put(port, await api.get<PortExtension>(`${source}/extension?port=${port}`));
    } catch (e) {
      model.setRefused((e as Error).message);
    }
  };
  return Array.from({ length: ports }, (_, i) => i + 1).map((port) => {
    const e = setting.extensions[port - 1] ?? NONE;
    return (
      <div key={port}>
        extend port {port} by{" "}
        <QuantityField
          label={`Extension of port ${port}`}
          unit="s"
          value={e.delaySeconds}
          format={(v) => (v === 0 ? "0 s" : formatSeconds(v))}
          next={(v, up) => v + (up ? 1e-11 : -1e-11)}
          onCommit={(delaySeconds) => put(port, { ...e, delaySeconds })}
        />{" "}
        {(e.delaySeconds !== 0 || e.lossDb !== 0) && (
          <>
            and{" "}
            <QuantityField
              label={`Loss of the extension of port ${port}`}
              unit="dB"
              value={e.lossDb}
              format={(v) => `${Number(v.toPrecision(3))} dB`}
              next={(v, up) => v + (up ? 0.01 : -0.01)}
              onCommit={(lossDb) => put(port, { ...e, lossDb })}
            />{" "}
            at {formatHertz(e.atHz, 4)}{" "}
          </>
        )}
        <Button
          size="compact-xs"
          variant="subtle"
          title="From an open or a short at the plane"
          onClick={() => find(port)}
        >
          find it
        </Button>
      </div>
    );
  });
}
