import { FileButton, Text } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type OfdmDescription } from "../../api/client";
import { Choice } from "../../desk/Choice";

/** Descriptions of OFDM frames that come with the server. */
export function useReadyDescriptions(): OfdmDescription[] {
  const { data = [] } = useQuery({
    queryKey: ["ofdm-descriptions"],
    queryFn: () => api.get<OfdmDescription[]>("/api/ofdm-descriptions"),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data;
}

const FILE = "file";
const LEGACY = "legacy";

/** What a file says, or why it cannot be read. */
async function readDescription(file: File): Promise<OfdmDescription | string> {
  try {
    const read = JSON.parse(await file.text());
    return read && typeof read === "object" && Array.isArray(read.symbols)
      ? (read as OfdmDescription)
      : `${file.name} is no description: it has no symbols.`;
  } catch {
    return `${file.name} is no JSON. Choose a description of OFDM frames.`;
  }
}

/** Which frames are meant: those that say it themselves, ready ones, or those of a file. */
export function DescriptionChoice(props: {
  label: string;
  value: OfdmDescription | null;
  /** How frames are called that need no description; null if they need one. */
  legacy: string | null;
  /** What the server has against the description. */
  error?: string;
  onChange: (v: OfdmDescription | null) => unknown;
}) {
  const { value, legacy } = props;
  const ready = useReadyDescriptions();
  const open = useRef<() => void>(() => undefined);
  const [wrong, setWrong] = useState("");
  const all = value && !ready.some((d) => d.name === value.name) ? [...ready, value] : ready;
  const choices: Record<string, string> = {
    ...(legacy ? { [LEGACY]: legacy } : {}),
    ...Object.fromEntries(all.map((d) => [`d:${d.name}`, d.name])),
    [FILE]: "by a file ...",
  };
  const take = async (file: File | null) => {
    const read = file ? await readDescription(file) : null;
    setWrong(typeof read === "string" ? read : "");
    if (read && typeof read !== "string") {
      props.onChange(read);
    }
  };
  return (
    <>
      <Choice
        label={props.label}
        value={value ? `d:${value.name}` : legacy ? LEGACY : "choose a description"}
        choices={choices}
        onChange={(v) => {
          if (v === FILE) {
            open.current();
          } else {
            setWrong("");
            props.onChange(v === LEGACY ? null : (all.find((d) => `d:${d.name}` === v) ?? null));
          }
        }}
      />
      <FileButton onChange={take} accept="application/json,.json">
        {({ onClick }) => {
          open.current = onClick;
          return null;
        }}
      </FileButton>
      {(wrong || props.error) && (
        <Text component="span" display="block" c="red" fz="xs">
          {wrong || props.error}
        </Text>
      )}
    </>
  );
}
