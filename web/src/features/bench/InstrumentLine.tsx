import { Alert, Button, Group, Modal, Stack, Text, Textarea } from "@mantine/core";
import { IconChevronDown, IconChevronRight } from "@tabler/icons-react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Instrument, type Job, type Problem } from "../../api/client";
import { ConfirmButton } from "../../components/ConfirmButton";
import { factWords } from "../../desk/outcomes";
import classes from "./BenchPage.module.css";
import { ControlField } from "./ControlField";

const STATE_WORDS: Record<Instrument["state"], string> = {
  DISCONNECTED: "\u25CB not connected",
  CONNECTING: "\u2026 connecting",
  CONNECTED: "\u2713 connected",
  BUSY: "\u25B6 busy: measuring",
  LOST: "\u2717 lost, trying again",
  ERROR: "\u26A0 error",
};

/** One instrument: its state and its switches on a line, the rest when it is unfolded. */
export function InstrumentLine(props: { instrument: Instrument; job: Job | undefined }) {
  const { instrument, job } = props;
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [note, setNote] = useState("");
  const [wrong, setWrong] = useState("");
  const [errors, setErrors] = useState<string[] | null>(null);
  const [refused, setRefused] = useState<{ values: Record<string, string>; why: string } | null>(
    null,
  );
  const url = `/api/instruments/${instrument.id}`;
  const off = instrument.state === "DISCONNECTED";

  const act = async (work: () => Promise<string>) => {
    setNote("");
    setWrong("");
    try {
      setNote(await work());
    } catch (e) {
      setWrong((e as Problem).message);
    }
    await queries.invalidateQueries({ queryKey: ["instruments"] });
    await queries.invalidateQueries({ queryKey: ["plan"] });
  };
  const turn = (values: Record<string, string>, overrideReason = "") =>
    act(async () => {
      try {
        await api.put(`${url}/controls`, { values, jobId: job?.id ?? null, overrideReason });
        setRefused(null);
        return "";
      } catch (e) {
        const problem = e as Problem;
        if (problem.field === "levelPlan") {
          setRefused({ values, why: problem.message });
          return "";
        }
        throw e;
      }
    });

  return (
    <section className={classes.line} data-state={instrument.state} aria-label={instrument.name}>
      <div className={classes.head}>
        <button
          type="button"
          className={classes.unfold}
          aria-expanded={open}
          title="Identity, connection and errors"
          onClick={() => setOpen(!open)}
        >
          {open ? <IconChevronDown size={16} /> : <IconChevronRight size={16} />}
          <span>
            <span className={classes.name}>{instrument.name}</span>
            <span className={classes.kind}>{instrument.kindLabel}</span>
          </span>
        </button>
        <div className={classes.controls}>
          {instrument.controls
            .filter((c) => c.form !== "ACTION")
            .map((c) => (
              <ControlField
                key={c.id}
                control={c}
                of={instrument.name}
                disabled={off}
                onSet={(value) => turn({ [c.id]: value })}
              />
            ))}
          {instrument.facts.map((f) => (
            <span key={f.label} className="figures">
              {factWords(f)}
            </span>
          ))}
        </div>
        <span className={classes.state}>{STATE_WORDS[instrument.state]}</span>
      </div>
      {instrument.message && (
        <Alert color="red" variant="light" p={6}>
          {instrument.message}
        </Alert>
      )}
      {refused && (
        <Refused
          why={refused.why}
          onLeave={() => setRefused(null)}
          onTurn={(reason) => turn(refused.values, reason)}
        />
      )}
      {open && (
        <div className={classes.more}>
          <Text fz="sm">
            <span className="figures">
              {instrument.host}:{instrument.port}
            </span>
            , dialect {instrument.dialect}: {instrument.identity || "has not said who it is yet"}
          </Text>
          <Group mt={6} gap={8}>
            <Button
              size="compact-sm"
              variant={off ? "filled" : "default"}
              onClick={() =>
                act(async () => {
                  await api.post(`${url}/${off ? "connect" : "disconnect"}`);
                  return "";
                })
              }
            >
              {off ? "Connect" : "Disconnect"}
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() =>
                act(async () => (await api.post<{ identity: string }>(`${url}/identify`)).identity)
              }
            >
              Identify
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() =>
                act(async () => {
                  await api.post(`${url}/reset`);
                  return "Reset to its own default state.";
                })
              }
            >
              Reset
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() =>
                act(async () => {
                  setErrors((await api.post<{ errors: string[] }>(`${url}/errors`)).errors);
                  return "";
                })
              }
            >
              Errors
            </Button>
            {instrument.controls
              .filter((c) => c.form === "ACTION")
              .map((c) => (
                <Button
                  key={c.id}
                  size="compact-sm"
                  variant="default"
                  onClick={() => turn({ [c.id]: "" })}
                >
                  {c.label}
                </Button>
              ))}
            <ConfirmButton
              size="compact-sm"
              question={`Forget ${instrument.name}`}
              onConfirm={() =>
                act(async () => {
                  await api.remove(url);
                  return "";
                })
              }
            >
              Remove
            </ConfirmButton>
          </Group>
        </div>
      )}
      {note && (
        <Text fz="sm" px={28} role="status">
          {note}
        </Text>
      )}
      {wrong && (
        <Alert color="red" variant="light" p={6}>
          {wrong}
        </Alert>
      )}
      <Modal
        opened={errors !== null}
        onClose={() => setErrors(null)}
        title={`Errors of ${instrument.name}`}
      >
        {errors?.length ? (
          <Stack gap={4}>
            {errors.map((e, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same words may come twice
              <Text key={i} fz="sm" className="figures">
                {e}
              </Text>
            ))}
          </Stack>
        ) : (
          <Text>The error queue is empty.</Text>
        )}
      </Modal>
    </section>
  );
}

/** What the level plan says against it, and the way past it with a reason. */
function Refused(props: { why: string; onTurn: (reason: string) => void; onLeave: () => void }) {
  const [reason, setReason] = useState("");
  return (
    <Alert color="red" variant="light" p={8} title="Not switched">
      <Text fz="sm">{props.why}</Text>
      <Group mt={6} align="flex-end">
        <Textarea
          aria-label="Reason"
          placeholder="Why do it all the same?"
          autosize
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
          style={{ flex: 1 }}
        />
        <Button
          size="xs"
          color="red"
          disabled={!reason.trim()}
          onClick={() => props.onTurn(reason)}
        >
          Switch all the same
        </Button>
        <Button size="xs" variant="default" onClick={props.onLeave}>
          Leave it
        </Button>
      </Group>
    </Alert>
  );
}
