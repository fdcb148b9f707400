import { Text, Textarea, UnstyledButton } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Job } from "../../api/client";
import { FormModal } from "../../desk/FormModal";
import { readRates, writeRates } from "./rates";

/** The clocks and intervals that are known of the device under test, and where they are changed. */
export function KnownRates({ job }: { job: Job }) {
  const [open, setOpen] = useState(false);
  const n = job.rates.length;
  return (
    <>
      held against{" "}
      <UnstyledButton
        onClick={() => setOpen(true)}
        style={{ borderBottom: "1.5px dotted var(--ink-soft)", fontSize: "0.92rem" }}
      >
        {n === 0 ? "no known rates" : `${n} known rate${n === 1 ? "" : "s"}`}
      </UnstyledButton>
      {open && <RatesForm job={job} onClose={() => setOpen(false)} />}
    </>
  );
}

function RatesForm({ job, onClose }: { job: Job; onClose: () => void }) {
  const queries = useQueryClient();
  const [text, setText] = useState(writeRates(job.rates));
  const [wrong, setWrong] = useState("");
  const save = async () => {
    const rates = readRates(text);
    if (typeof rates === "string") {
      setWrong(rates);
      return;
    }
    try {
      await api.put(`/api/jobs/${job.id}/rates`, rates);
      await queries.invalidateQueries({ queryKey: ["jobs"] });
      onClose();
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <FormModal
      title={`Known rates of ${job.dut}`}
      wrong={wrong}
      done="Save"
      onClose={onClose}
      onDone={save}
    >
      <Text fz="sm">
        Clocks and intervals of the device, one a line. An interval that is found is held against
        them.
      </Text>
      <Textarea
        label="Known rates"
        placeholder={"radio sleep = 3.1 ms\ncore clock = 26 MHz"}
        autosize
        minRows={5}
        data-autofocus
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
    </FormModal>
  );
}
