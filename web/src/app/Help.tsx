import { Group, Modal, Table } from "@mantine/core";
import { allCommands } from "./commands";

/** Areas where each key works; none for all of them. */
const KEYS: [string, string, string[]?][] = [
  ["/", "quick entry: a value, a setting with a value, or an action"],
  ["space", "start, hold, resume", ["spectrum", "modulation", "time", "receiver", "network"]],
  [
    "g",
    "glance: verdict, judged reading and plot alone",
    ["spectrum", "modulation", "time", "receiver", "network"],
  ],
  ["m", "marker on the highest peak", ["spectrum", "network"]],
  ["n", "move the marker to the next lower peak", ["spectrum", "network"]],
  ["d", "delta marker, measured from the marker", ["spectrum"]],
  ["c", "centre on the marker, or on the highest peak", ["spectrum"]],
  ["- and +", "narrow and widen the span", ["spectrum"]],
  ["p", "pin the marker as a further one", ["spectrum"]],
  ["b and f", "back to the framing before, and forward again", ["spectrum", "network"]],
  ["a", "auto frame: find and frame what is there", ["spectrum"]],
  ["w", "whose line is it?", ["spectrum"]],
  ["l", "table of lines", ["spectrum"]],
  ["k", "keep a run", ["spectrum", "modulation", "time", "receiver", "network"]],
  ["s", "one sweep of the network analyzer", ["network"]],
  ["r", "remember the sweep to compare with", ["network"]],
  ["t", "reflection over distance", ["network"]],
  ["Esc", "the whole band again", ["network"]],
  [
    "1 to 9",
    "arrangement of tiles, as its menu counts them",
    ["spectrum", "modulation", "time", "receiver", "network", "runs"],
  ],
  ["[ and ]", "move the reading plane", ["spectrum", "modulation", "time", "receiver"]],
  ["?", "this list"],
];

/** Keys and entries of the area that is shown, on one page. */
export function Help(props: { area: string; onClose: () => void }) {
  const commands = allCommands();
  const half = Math.ceil(commands.length / 2);
  return (
    <Modal opened onClose={props.onClose} title="Keys and quick entry" size={1150} yOffset={20}>
      <Group align="flex-start" wrap="nowrap" gap="lg">
        <Table fz="xs" verticalSpacing={2}>
          <Table.Tbody>
            {KEYS.filter(([, , areas]) => !areas || areas.includes(props.area)).map(
              ([key, what]) => (
                <Table.Tr key={key}>
                  <Table.Td className="figures" fw={600} style={{ whiteSpace: "nowrap" }}>
                    {key}
                  </Table.Td>
                  <Table.Td>{what}</Table.Td>
                </Table.Tr>
              ),
            )}
          </Table.Tbody>
        </Table>
        {[commands.slice(0, half), commands.slice(half)].map((part) => (
          <Table key={part[0]?.name ?? ""} fz="xs" verticalSpacing={2}>
            <Table.Tbody>
              {part.map((c) => (
                <Table.Tr key={c.name}>
                  <Table.Td className="figures" style={{ whiteSpace: "nowrap" }}>
                    {c.name} {c.argument}
                  </Table.Td>
                  <Table.Td>{c.hint}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        ))}
      </Group>
    </Modal>
  );
}
