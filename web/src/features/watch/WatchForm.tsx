import { Checkbox, MultiSelect, Select, Table, Text, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job, type NewWatch, type Watch, type Watchable } from "../../api/client";
import { formatCell } from "../../components/formatCell";
import { DraftField, FormModal } from "../../desk/FormModal";
import { useDraft } from "../../desk/useDraft";

const keyOf = (w: Watchable) => `${w.source}/${w.measurement}`;

/** What is measured for the job now. */
function useWatchable(job: Job) {
  return useQuery({
    queryKey: ["watchable", job.id],
    queryFn: () => api.get<Watchable[]>(`/api/jobs/${job.id}/watchable`),
    refetchInterval: 2000,
  });
}

/** Columns of tables, to be watched in all their rows. */
export function columnsOf(readings: { id: string }[]) {
  const columns = new Map<string, string[]>();
  for (const { id } of readings) {
    const parts = id.split(":");
    if (parts[0] === "table" && parts.length > 3) {
      const key = `${parts[1]}, ${parts[parts.length - 1]}`;
      columns.set(key, [...(columns.get(key) ?? []), id]);
    }
  }
  return [...columns].map(([name, ids]) => ({
    key: `each:${name}`,
    label: `all ${ids.length} of ${name}`,
    ids,
  }));
}

/** More than these are found by typing a part of their name. */
const MOST_LISTED = 60;

/** Which numbers are watched, between which limits, and how. */
export function WatchForm(props: {
  job: Job;
  onClose: () => void;
  onBegun: (watch: Watch) => void;
}) {
  const { data: all } = useWatchable(props.job);
  const [chosen, setChosen] = useState<string | null>(null);
  const [ids, setIds] = useState<string[]>([]);
  const [hourly, setHourly] = useState<string[]>([]);
  const [name, setName] = useState("");
  const draft = useDraft({ everySeconds: "1 s", mostKept: "20", aroundSeconds: "1 s" });
  const what = all?.find((w) => keyOf(w) === chosen) ?? all?.[0];
  const readings = what?.readings ?? [];
  const watched = ids.flatMap((id) => readings.filter((r) => r.id === id));

  const choose = (wanted: string[]) => {
    for (const r of readings.filter((x) => wanted.includes(x.id) && !ids.includes(x.id))) {
      draft.set(`${r.id} lower`, r.lower === null ? "" : String(r.lower));
      draft.set(`${r.id} upper`, r.upper === null ? "" : String(r.upper));
    }
    setIds(wanted);
  };
  const begin = () =>
    draft.attempt(async () => {
      if (!what) {
        return "Start a measurement for this job first.";
      }
      const wanted: NewWatch = {
        name: name || `${what.title} of ${what.sourceName}`,
        source: what.source,
        measurement: what.measurement,
        readings: watched.map((r) => ({
          id: r.id,
          perHour: hourly.includes(r.id),
          lower: draft.number(`${r.id} lower`, r.unit),
          upper: draft.number(`${r.id} upper`, r.unit),
          hysteresis: draft.number(`${r.id} hysteresis`, r.unit),
        })),
        everySeconds: draft.number("everySeconds", "s"),
        mostKept: draft.number("mostKept", ""),
        aroundSeconds: draft.number("aroundSeconds", "s"),
      };
      props.onBegun(await api.post<Watch>("/api/watches", wanted));
      return undefined;
    });

  return (
    <FormModal
      title="A new long watch"
      done="Begin"
      size="xl"
      wrong={draft.wrong}
      onClose={props.onClose}
      onDone={begin}
    >
      {all && all.length === 0 && (
        <Text fz="sm">
          Nothing is measured for this job yet. Set a measurement up on its desk (Spectrum, Time,
          Modulation ...), start it, and come back: what it shows can be watched from here.
        </Text>
      )}
      {what && (
        <>
          <Select
            label="What is measured"
            allowDeselect={false}
            data={all?.map((w) => ({ value: keyOf(w), label: `${w.title} of ${w.sourceName}` }))}
            value={keyOf(what)}
            onChange={(key) => {
              setChosen(key);
              setIds([]);
            }}
          />
          <TextInput
            label="Name of the watch"
            data-autofocus
            placeholder={`${what.title} of ${what.sourceName}`}
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <MultiSelect
            label="Numbers that are watched"
            searchable
            limit={MOST_LISTED}
            styles={{ pillsList: { maxHeight: 92, overflowY: "auto" } }}
            data={[
              ...readings.map((r) => ({ value: r.id, label: r.label })),
              ...columnsOf(readings).map((c) => ({ value: c.key, label: c.label })),
            ]}
            value={ids}
            onChange={(wanted) => {
              const whole = columnsOf(readings).filter((c) => wanted.includes(c.key));
              const single = wanted.filter((id) => !whole.some((c) => c.key === id));
              choose([...new Set([...single, ...whole.flatMap((c) => c.ids)])]);
            }}
            placeholder={ids.length ? "" : "choose one or more"}
          />
          {watched.length > 0 && (
            <Table fz="sm" verticalSpacing={4}>
              <Table.Thead>
                <Table.Tr>
                  <Table.Th>Number</Table.Th>
                  <Table.Th>Now</Table.Th>
                  <Table.Th>At least</Table.Th>
                  <Table.Th>At most</Table.Th>
                  <Table.Th>Back inside by</Table.Th>
                  <Table.Th>Rate</Table.Th>
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {watched.map((r) => (
                  <Table.Tr key={r.id}>
                    <Table.Td>{r.label}</Table.Td>
                    <Table.Td className="figures">
                      {r.value === null ? "\u2014" : formatCell(r.value, r.unit)}{" "}
                      {["Hz", "s", "V", "W"].includes(r.unit) ? "" : r.unit}
                    </Table.Td>
                    {["lower", "upper", "hysteresis"].map((side) => (
                      <Table.Td key={side}>
                        <TextInput
                          size="xs"
                          w={104}
                          aria-label={`${r.label}, ${side}`}
                          placeholder={side === "hysteresis" ? "0" : "no limit"}
                          value={draft.texts[`${r.id} ${side}`] ?? ""}
                          onChange={(e) => draft.set(`${r.id} ${side}`, e.currentTarget.value)}
                        />
                      </Table.Td>
                    ))}
                    <Table.Td>
                      {r.unit === "" && (
                        <Checkbox
                          size="xs"
                          label="an hour"
                          title="A count that grows: what it grows by in an hour"
                          checked={hourly.includes(r.id)}
                          onChange={(e) =>
                            setHourly(
                              e.currentTarget.checked
                                ? [...hourly, r.id]
                                : hourly.filter((id) => id !== r.id),
                            )
                          }
                        />
                      )}
                    </Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          )}
          <DraftField
            draft={draft}
            field="everySeconds"
            label="A point stands for the looks of (0: each look)"
          />
          <DraftField
            draft={draft}
            field="mostKept"
            label="Times outside that are kept with their looks, at most"
          />
          <DraftField
            draft={draft}
            field="aroundSeconds"
            label="Of a stream, kept before and after"
          />
        </>
      )}
    </FormModal>
  );
}
