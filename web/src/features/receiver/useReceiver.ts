import type { Job, Outcome, ReceiverSettings, ReceiverState } from "../../api/client";
import type { Arrays, RawFrame } from "../../api/frames";
import { useCalmFrame } from "../../api/live";
import { usePlan } from "../../desk/usePlan";
import { useSession } from "../../desk/useSession";

/** One look of a receiver under test. */
export interface ReceiverFrame {
  outcome: Outcome;
  arrays: Arrays;
  settings: ReceiverSettings;
}

/** Everything that the receiver area does with its source. */
export function useReceiver(job: Job | undefined, source: string | null) {
  const session = useSession<ReceiverSettings, ReceiverState["facts"], ReceiverFrame>(
    source,
    "receiver",
    job,
    receiverFrame,
  );
  const frame = useCalmFrame(session.store);
  const plan = usePlan(job);
  return { ...session, frame, plan };
}

const receiverFrame = ({ header, arrays }: RawFrame): ReceiverFrame => ({
  outcome: header.outcome,
  arrays,
  settings: header.settings as ReceiverSettings,
});

export type ReceiverModel = ReturnType<typeof useReceiver>;
