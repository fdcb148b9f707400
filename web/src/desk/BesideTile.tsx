import { useQuery } from "@tanstack/react-query";
import { useContext, useEffect } from "react";
import type { Tile } from "../api/client";
import { api } from "../api/client";
import { readFrame } from "../api/frames";
import { formatHertz } from "../components/units";
import { type Beside, BesideContext, type besideOf, besideSettings, inBand } from "./beside";
import classes from "./Desk.module.css";
import { LookTile, type LookTileProps } from "./OutcomeTile";
import { showBand } from "./useBeside";

/** The same samples are not looked at more often. */
const PAUSE_MILLIS = 250;

/** What was asked of a look, by any tile. */
const asked = new WeakMap<object, Set<string>>();

/** What another kind of measurement shows of the newest samples. */
function useLookBeside(beside: Beside, kind: string) {
  const { url, look } = beside;
  const settings = besideSettings(kind, beside);
  const question = JSON.stringify([url, kind, settings]);
  const query = useQuery({
    queryKey: ["beside", question],
    enabled: look !== null,
    retry: false,
    placeholderData: (before) => before,
    queryFn: async () => {
      look && asked.set(look, (asked.get(look) ?? new Set<string>()).add(question));
      const reply = await api.frame(`${url}/beside/${kind}`, settings);
      const { header, arrays } = readFrame(reply);
      return { outcome: header.outcome, arrays };
    },
  });
  const { isFetching, refetch } = query;
  useEffect(() => {
    if (isFetching || look === null || asked.get(look)?.has(question)) {
      return;
    }
    const timer = setTimeout(() => {
      asked.get(look)?.has(question) || refetch();
    }, PAUSE_MILLIS);
    return () => clearTimeout(timer);
  }, [isFetching, look, question, refetch]);
  return query;
}

/** A tile that shows the samples of what is measured in another way. */
export function BesideTile(
  props: Omit<LookTileProps, "look" | "what"> & {
    tile: Tile;
    of: NonNullable<ReturnType<typeof besideOf>>;
  },
) {
  const beside = useContext(BesideContext);
  return beside ? <Shown {...props} beside={beside} /> : null;
}

function Shown(props: Parameters<typeof BesideTile>[0] & { beside: Beside }) {
  const { beside, of } = props;
  const { data, error, isError } = useLookBeside(beside, of.kind);
  const note =
    beside.band && inBand(of.kind) ? (
      <button
        type="button"
        className={`figures ${classes.besideNote}`}
        title={showBand(beside.band)}
        aria-label={`Take the band from ${showBand(beside.band)} away`}
        onClick={() => beside.draw(null)}
      >
        {formatHertz(beside.band[1] - beside.band[0], 2)} {"\u00D7"}
      </button>
    ) : undefined;
  if (isError) {
    return (
      <LookTile
        {...props}
        what={of.part}
        look={null}
        note={note}
        empty={(error as Error).message}
      />
    );
  }
  return <LookTile {...props} what={of.part} look={data ?? null} note={note} />;
}
