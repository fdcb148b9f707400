import { Alert, Text } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import type { components } from "../api/schema";

type BrokenFile = components["schemas"]["BrokenFile"];

/** Files of the user's in a folder of the data that cannot be used, each with its line. */
export function BrokenFiles({ folder }: { folder: "dialects" | "kits" }) {
  const { data = [] } = useQuery({
    queryKey: ["broken-files"],
    queryFn: () => api.get<BrokenFile[]>("/api/broken-files"),
  });
  const here = data.filter((f) => f.file.startsWith(folder));
  if (here.length === 0) {
    return null;
  }
  return (
    <Alert
      color="yellow"
      title={`Not used, in the folder "${folder}"`}
      styles={{ title: { color: "var(--ink)" } }}
    >
      {here.map((f) => (
        <Text key={f.file} fz="sm">
          {f.sentence}
        </Text>
      ))}
    </Alert>
  );
}
