import type { ResultTable } from "../api/client";
import { formatCell } from "../components/formatCell";
import { TableTitle } from "../components/ResultTableView";
import { withMinus } from "../components/units";
import classes from "./Desk.module.css";

/** Shares below this are told in the table that is saved, not here. */
const LEAST_PERCENT = 0.05;

/**
 * Parts of a whole: a bar of all of them, then each with its share, what it makes alone, what is
 * left without it, what it was told by, and what to do. Columns stand in this order.
 */
export function SharesTable({ table }: { table: ResultTable }) {
  const [, share, alone, without] = table.columns;
  const rows = table.rows
    .map(({ cells }) => ({
      name: cells[0].text,
      share: cells[1].value ?? 0,
      alone: cells[2].value,
      without: cells[3].value,
      evidence: cells[4].text,
      remedy: cells[5].text,
    }))
    .filter((r) => Math.abs(r.share) >= LEAST_PERCENT);
  const whole = rows.reduce((sum, r) => sum + Math.max(0, r.share), 0);
  const colour = (i: number) => ({
    background: `var(--trace-${i % 5})`,
    opacity: i < 5 ? 1 : 0.5,
  });
  const number = (value: number | null, unit: string) =>
    value === null ? "\u2014" : `${formatCell(Number(value.toPrecision(3)), unit)} ${unit}`;
  return (
    <div data-testid={`table-${table.id}`} className={classes.shares}>
      <div className={classes.shareBar} aria-hidden="true">
        {rows.map((r, i) => (
          <span
            key={r.name}
            style={{ width: `${(100 * Math.max(0, r.share)) / whole}%`, ...colour(i) }}
          />
        ))}
      </div>
      <table>
        <thead>
          <tr>
            <th>
              <TableTitle table={table} />
            </th>
            <th>{share.label}</th>
            <th>{alone.label}</th>
            <th>{without.label}</th>
          </tr>
        </thead>
        {rows.map((r, i) => (
          <tbody key={r.name}>
            <tr>
              <td>
                <span className={classes.shareKey} style={colour(i)} />
                {r.name}
              </td>
              <td className="figures">{number(r.share, share.unit)}</td>
              <td className="figures">{number(r.alone, alone.unit)}</td>
              <td className="figures">{number(r.without, without.unit)}</td>
            </tr>
            <tr>
              <td colSpan={4} className={classes.small}>
                {withMinus(r.evidence)}
                {r.remedy && (
                  <span className={classes.remedy}>
                    {" \u2192 "}
                    {withMinus(r.remedy)}
                  </span>
                )}
              </td>
            </tr>
          </tbody>
        ))}
      </table>
    </div>
  );
}
