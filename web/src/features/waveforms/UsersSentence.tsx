import { UnstyledButton } from "@mantine/core";
import type { SentUser } from "../../api/client";
import { QuantityField } from "../../components/QuantityField";
import { Choice } from "../../desk/Choice";
import { codingsOf } from "./codings";
import classes from "./UsersSentence.module.css";

/** Tones of a unit. */
const SIZES = Object.fromEntries(
  [26, 52, 106, 242, 484, 996].map((tones) => [String(tones), `${tones} tones`]),
);

/** Whom packets of several users are for: a line each. */
export function UsersSentence(props: {
  users: SentUser[];
  /** Only what is received counts: neither stations nor levels. */
  received?: boolean;
  onChange: (users: SentUser[]) => void;
}) {
  const { users, received, onChange } = props;
  const change = (at: number, part: Partial<SentUser>) =>
    onChange(users.map((u, i) => (i === at ? { ...u, ...part } : u)));
  const last = users[users.length - 1];
  return (
    <ul className={classes.users}>
      {users.map((u, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a user is known by its place in the list
        <li key={i}>
          {!received && (
            <>
              station{" "}
              <QuantityField
                label={`Station of user ${i + 1}`}
                unit=""
                whole
                value={u.station}
                next={(v, up) => Math.min(2045, Math.max(0, v + (up ? 1 : -1)))}
                onCommit={(station) => change(i, { station })}
              />{" "}
              on{" "}
            </>
          )}
          <Choice
            label={`Unit of user ${i + 1}`}
            value={String(u.tones)}
            choices={SIZES}
            onChange={(v) => change(i, { tones: Number(v), place: 1 })}
          />
          , number{" "}
          <QuantityField
            label={`Place of the unit of user ${i + 1}`}
            unit=""
            whole
            value={u.place}
            next={(v, up) => Math.max(1, v + (up ? 1 : -1))}
            onCommit={(place) => change(i, { place })}
          />{" "}
          from the lowest, with{" "}
          <Choice
            label={`MCS of user ${i + 1}`}
            value={String(u.mcs)}
            choices={codingsOf("HE")}
            onChange={(v) => change(i, { mcs: Number(v) })}
          />
          {!received && (
            <>
              {" "}
              at{" "}
              <QuantityField
                label={`Level of user ${i + 1}`}
                unit="dB"
                value={u.levelDb ?? 0}
                next={(v, up) => Math.min(12, Math.max(-12, v + (up ? 1 : -1)))}
                onCommit={(levelDb) => change(i, { levelDb })}
              />
            </>
          )}
          {users.length > 1 && (
            <UnstyledButton
              className={classes.remove}
              aria-label={`Leave out user ${i + 1}`}
              onClick={() => onChange(users.filter((_, at) => at !== i))}
            >
              leave out
            </UnstyledButton>
          )}
        </li>
      ))}
      <li>
        <UnstyledButton
          className={classes.more}
          onClick={() =>
            onChange([...users, { ...last, place: last.place + 1, station: last.station + 1 }])
          }
        >
          one more user
        </UnstyledButton>
      </li>
    </ul>
  );
}
