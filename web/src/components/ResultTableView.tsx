import { ActionIcon, Table, Text } from "@mantine/core";
import { IconDownload } from "@tabler/icons-react";
import type { ResultTable } from "../api/client";
import { download } from "./download";
import { carriesUnit, formatCell } from "./formatCell";
import { CLOCK } from "./plotTypes";
import classes from "./ResultTableView.module.css";
import { formatMoment } from "./units";
import { VERDICT_SHAPE, VERDICT_WORDS } from "./verdicts";

/** The title of a table with a button to save it. */
export function TableTitle({ table }: { table: ResultTable }) {
  return (
    <div className={classes.title}>
      <Text fz="sm" fw={600}>
        {table.title}
      </Text>
      <ActionIcon
        variant="subtle"
        size="sm"
        aria-label={`Save table ${table.title}`}
        title="Save as CSV"
        onClick={() => download(`${table.id}.csv`, tableCsv(table), "text/csv")}
      >
        <IconDownload size={15} />
      </ActionIcon>
    </div>
  );
}

/** One short word, which is not parted at its hyphens. */
const isWord = (text: string) => text.length <= 12 && !text.includes(" ");

/** A table of results with its verdicts and a button to save it. */
/** Bytes stand under one another. */
const isBytes = (text: string) => /^[0-9a-f]{2}( [0-9a-f]{2})+$/.test(text);

export function ResultTableView({ table }: { table: ResultTable }) {
  const judged = table.rows.some((r) => r.verdict !== "NONE");
  return (
    <div>
      <TableTitle table={table} />
      <Table
        fz="sm"
        lh={1.25}
        verticalSpacing={3}
        horizontalSpacing={6}
        data-testid={`table-${table.id}`}
      >
        <Table.Thead>
          <Table.Tr>
            {table.columns.map((c, i) =>
              c.label ? (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
                <Table.Th key={i}>
                  {c.label}
                  {c.unit && !carriesUnit(c.unit) ? ` (${c.unit})` : ""}
                </Table.Th>
              ) : (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
                <Table.Td key={i} />
              ),
            )}
            {judged && <Table.Th>Verdict</Table.Th>}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {table.rows.map((row, r) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are replaced as a whole
            <Table.Tr key={r}>
              {row.cells.map((cell, i) => (
                <Table.Td
                  // biome-ignore lint/suspicious/noArrayIndexKey: cells never move
                  key={i}
                  className={
                    cell.value !== null
                      ? `figures ${classes.number}`
                      : isBytes(cell.text)
                        ? "figures"
                        : isWord(cell.text)
                          ? classes.word
                          : undefined
                  }
                >
                  {cell.value === null
                    ? cell.text || "\u2014"
                    : formatCell(cell.value, table.columns[i].unit)}
                </Table.Td>
              ))}
              {judged && (
                <Table.Td className={`${classes.number} ${classes[row.verdict] ?? ""}`}>
                  {VERDICT_SHAPE[row.verdict]} {VERDICT_WORDS[row.verdict]}
                </Table.Td>
              )}
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {table.rows.length === 0 && (
        <Text fz="sm" c="dimmed">
          nothing to list
        </Text>
      )}
    </div>
  );
}

function tableCsv(table: ResultTable): string {
  const quote = (s: string) => (/[",\n]/.test(s) ? `"${s.replaceAll('"', '""')}"` : s);
  const number = (value: number, column: number) =>
    table.columns[column].unit === CLOCK ? formatMoment(value) : String(value);
  const head = table.columns.map((c) => quote(c.unit ? `${c.label} (${c.unit})` : c.label));
  const rows = table.rows.map((r) =>
    [
      ...r.cells.map((c, i) => (c.value === null ? quote(c.text) : number(c.value, i))),
      r.verdict,
    ].join(","),
  );
  return `${[`# ${table.title}`, [...head, "verdict"].join(","), ...rows].join("\n")}\n`;
}
