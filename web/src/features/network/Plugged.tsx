import { useQueryClient } from "@tanstack/react-query";
import { api, type Control, type Instrument } from "../../api/client";
import { Choice } from "../../desk/Choice";
import desk from "../../desk/Desk.module.css";
import type { NetworkModel } from "./useNetworks";

/** The control by which something is plugged in, undefined if the instrument holds no parts. */
export const partOf = (i: Instrument): Control | undefined =>
  i.kind === "PART_HOLDER" ? i.controls.find((c) => c.id === "part") : undefined;

/** Places where something is plugged in at the analyzer: those that hold a through, or pads. */
export const holdersOf = (instruments: Instrument[]) =>
  instruments.filter((i) => partOf(i)?.choices.some((c) => c === "Open" || c === "None"));

/** What is plugged in; a real bench has none of these, its user does it by hand. */
export function Plugged({ model }: { model: NetworkModel }) {
  const queries = useQueryClient();
  return (
    <div className={desk.sentence}>
      {holdersOf(model.instruments).map((h) => (
        <div key={h.id}>
          <span className={desk.small}>{h.name}:</span>{" "}
          <Choice
            label={h.name}
            value={partOf(h)?.value ?? ""}
            choices={Object.fromEntries((partOf(h)?.choices ?? []).map((n) => [n, n]))}
            onChange={async (part) => {
              await api.put(`/api/instruments/${h.id}/controls`, { values: { part } });
              await queries.invalidateQueries({ queryKey: ["instruments"] });
            }}
          />
        </div>
      ))}
    </div>
  );
}
