import type { ReactNode } from "react";
import { BoardContext } from "../../desk/board";
import { useBoard } from "../../desk/useBoard";

/** Lays the photograph of the job's board under the places of a run. */
export function RunBoard(props: { jobId: number; children: ReactNode }) {
  const { picture } = useBoard(props.jobId);
  return <BoardContext.Provider value={picture}>{props.children}</BoardContext.Provider>;
}
