import { Alert, Button, Group, Modal, Stack, Text } from "@mantine/core";
import { IconChevronDown, IconChevronRight } from "@tabler/icons-react";
import { useState } from "react";
import { api, type Instrument, type Job } from "../../api/client";
import { ConfirmButton } from "../../components/ConfirmButton";
import { later } from "../../components/later";
import { ControlField } from "../../desk/ControlField";
import { Hints } from "../../desk/Hints";
import { factWords } from "../../desk/outcomes";
import { RefusedSwitch } from "../../desk/RefusedSwitch";
import { useControls } from "../../desk/useControls";
import { FIRST_CARRIER } from "../waveforms/parts";
import classes from "./BenchPage.module.css";

const WaveformDialog = later(
  async () => (await import("../waveforms/WaveformDialog")).WaveformDialog,
);

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
  const [open, setOpen] = useState(false);
  const [making, setMaking] = useState(false);
  const [errors, setErrors] = useState<string[] | null>(null);
  const { url, note, wrong, refused, leave, act, turn } = useControls(instrument, job);
  const off = instrument.state === "DISCONNECTED";
  const fields = (minor: boolean) =>
    instrument.controls
      .filter((c) => c.form !== "ACTION" && c.minor === minor)
      .map((c) => (
        <ControlField
          key={c.id}
          control={c}
          of={instrument.name}
          disabled={off}
          onSet={(value) => turn({ [c.id]: value })}
        />
      ));

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
          {fields(false)}
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
      {refused && <RefusedSwitch why={refused.why} onLeave={leave} onTurn={refused.again} />}
      <Hints hints={instrument.hints} onTake={turn} />
      {open && (
        <div className={classes.more}>
          <div className={classes.controls}>{fields(true)}</div>
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
            {instrument.kind === "SIGNAL_GENERATOR" && (
              <Button size="compact-sm" disabled={off} onClick={() => setMaking(true)}>
                Waveform ...
              </Button>
            )}
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
      {making && (
        <WaveformDialog
          generator={instrument}
          job={job}
          carrier={FIRST_CARRIER}
          onClose={() => setMaking(false)}
        />
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
