import { FileButton, Text, UnstyledButton } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { useBoard } from "../../desk/useBoard";

const FIRST_WIDTH_METRES = 0.1;
const LINK = { borderBottom: "1.5px dotted var(--ink-soft)", fontSize: "0.92rem" };

/** The photograph that the places lie on, and how wide what it shows is. */
export function BoardPhoto({ job }: { job: Job }) {
  const queries = useQueryClient();
  const { board } = useBoard(job.id);
  const [wrong, setWrong] = useState("");
  const url = `/api/jobs/${job.id}/board`;
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setWrong("");
    } catch (e) {
      setWrong((e as Error).message);
    }
    await queries.invalidateQueries({ queryKey: ["board", job.id] });
  };
  const take = (file: File | null) => {
    if (file) {
      const form = new FormData();
      form.append("file", file);
      form.append("widthMetres", String(board?.widthMetres ?? FIRST_WIDTH_METRES));
      act(() => api.put(url, form));
    }
  };
  return (
    <>
      <br />
      <FileButton onChange={take} accept="image/png,image/jpeg">
        {(p) => (
          <UnstyledButton {...p} style={LINK}>
            {board ? "another photograph" : "a photograph of it ..."}
          </UnstyledButton>
        )}
      </FileButton>
      {board && (
        <>
          , what it shows is{" "}
          <QuantityField
            label="Width of the photograph"
            unit=""
            suffix="mm"
            value={1000 * board.widthMetres}
            next={(v, up) => Math.max(1, v + (up ? 1 : -1))}
            onCommit={(mm) => act(() => api.patch(url, { widthMetres: mm / 1000 }))}
          />{" "}
          wide,{" "}
          <UnstyledButton style={LINK} onClick={() => act(() => api.remove(url))}>
            without it
          </UnstyledButton>
        </>
      )}
      {wrong && (
        <Text fz="sm" role="alert" style={{ color: "var(--fail)" }}>
          {wrong}
        </Text>
      )}
    </>
  );
}
