import { Text } from "@mantine/core";
import type { RunSummary } from "../../api/client";
import { go } from "../../app/router";
import { withMinus } from "../../components/units";
import { VERDICT_SHAPE, VERDICT_WORDS } from "../../components/verdicts";
import classes from "./RunsPage.module.css";
import { Picture } from "./RunTape";

/** All runs of a job as small pictures on one sheet, for the end of the day. */
export function RunGrid({ runs }: { runs: RunSummary[] }) {
  const count = (test: (r: RunSummary) => boolean) => runs.filter(test).length;
  const failed = count((r) => r.verdict.startsWith("FAIL"));
  const passed = count((r) => r.verdict.startsWith("PASS"));
  return (
    <>
      <Text fw={600}>
        {runs.length} runs: {passed} passed, {failed} failed, {runs.length - passed - failed}{" "}
        without a verdict
      </Text>
      <div className={classes.grid} data-testid="run-grid">
        {runs.map((r) => (
          <button
            key={r.id}
            type="button"
            className={classes.tile}
            data-verdict={r.verdict}
            onClick={() => go(`/runs?run=${r.id}`)}
          >
            <span className={classes.tileHead}>
              <span className={classes.tileName}>{r.name}</span>
              <b>
                {VERDICT_SHAPE[r.verdict]} {VERDICT_WORDS[r.verdict]}
              </b>
            </span>
            <Picture levels={r.picture} height={74} />
            <span className={`figures ${classes.tileFoot}`}>
              {new Date(r.keptAt).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })}{" "}
              {withMinus(r.headline)}
            </span>
            {r.note && <span className={classes.tileFoot}>{r.note}</span>}
          </button>
        ))}
      </div>
    </>
  );
}
