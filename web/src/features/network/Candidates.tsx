import { Table } from "@mantine/core";
import { formatHertz, signed } from "../../components/units";
import { VERDICT_SHAPE, VERDICT_WORDS } from "../../components/verdicts";
import desk from "../../desk/Desk.module.css";
import classes from "./NetworkPage.module.css";
import type { NetworkModel } from "./useNetworks";

/** All shown parts against the job's limits, the best first. */
export function Candidates({ model }: { model: NetworkModel }) {
  const rows = model.networks
    .map((n) => {
      const judged = n.outcomes.filter((o) => o.margin != null);
      const worst = judged.reduce<(typeof judged)[number] | null>(
        (w, o) => (w === null || (o.margin ?? 0) < (w.margin ?? 0) ? o : w),
        null,
      );
      return { n, worst };
    })
    .sort(
      (a, b) =>
        (b.worst?.margin ?? Number.NEGATIVE_INFINITY) -
        (a.worst?.margin ?? Number.NEGATIVE_INFINITY),
    );
  return (
    <section className={classes.candidates} aria-label="Candidates">
      <h3>Candidates, best first</h3>
      {model.asks.limits.length === 0 ? (
        <p>The job has no limits yet. Set them in the step "Judge"; every part is held to them.</p>
      ) : (
        <p className={desk.small}>
          Held to{" "}
          {model.asks.limits
            .map((l) => l.name || `S${l.row}${l.column} ${l.upper ? "at most" : "at least"}`)
            .join(", ")}
          . The margin is the smallest over all limits; below zero the part fails.
        </p>
      )}
      <Table fz="sm" verticalSpacing={6} data-testid="candidates" style={{ whiteSpace: "nowrap" }}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Part</Table.Th>
            <Table.Th>Verdict</Table.Th>
            <Table.Th>Margin</Table.Th>
            <Table.Th>Worst value</Table.Th>
            <Table.Th>At</Table.Th>
            <Table.Th>Limit</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rows.map(({ n, worst }, place) => (
            <Table.Tr key={`${n.id} ${n.name}`}>
              <Table.Td>
                {place + 1}. {n.name}
              </Table.Td>
              <Table.Td>
                {VERDICT_SHAPE[n.verdict]} {VERDICT_WORDS[n.verdict] || "no limit"}
              </Table.Td>
              <Table.Td className="figures">
                {worst?.margin == null ? "\u2014" : `${signed(worst.margin, 2)} ${worst.unit}`}
              </Table.Td>
              <Table.Td className="figures">
                {worst?.worst == null ? "\u2014" : `${signed(worst.worst, 2)} ${worst.unit}`}
              </Table.Td>
              <Table.Td className="figures">
                {worst?.atHz == null ? "\u2014" : formatHertz(worst.atHz, 5)}
              </Table.Td>
              <Table.Td>{worst?.name ?? ""}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </section>
  );
}
