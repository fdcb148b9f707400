import { Menu, TextInput, UnstyledButton } from "@mantine/core";
import { useState } from "react";
import { useCommands } from "../app/commands";
import { useKeys } from "../app/useKeys";
import { later } from "../components/later";
import { parseQuantity } from "../components/units";
import { Choice } from "./Choice";
import classes from "./Desk.module.css";
import { arrangementsOf, COUNTS, MOST_KEYS, type TileDesk } from "./tiles";

const FormModal = later(async () => (await import("./FormModal")).FormModal);

/** The key that does the same; who is read the name does not need it. */
const Key = (props: { children: number }) => (
  <span aria-hidden className="figures" style={{ color: "var(--ink-soft)" }}>
    {props.children}
  </span>
);

/** How many tiles are shown, and arrangements of them by name; the same in every area. */
export function TilesSentence({ desk }: { desk: TileDesk }) {
  const [naming, setNaming] = useState(false);
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState("");
  useCommands([
    {
      name: "tiles",
      argument: "<number>",
      hint: "how many tiles are shown: 1, 2, 4 or 6",
      run: (text) => {
        const n = parseQuantity(text, "");
        if (n === null || n < 1 || n > 6) {
          return `"${text}" is not a number of tiles. Write it as tiles 4.`;
        }
        desk.setCount(n);
        return "";
      },
    },
    {
      name: "arrange",
      argument: "<name>",
      hint: "take an arrangement of tiles",
      run: async (text) => {
        const kept = [...desk.ready, ...(await desk.listed())];
        const found = kept.filter((a) => a.name.toLowerCase().startsWith(text.toLowerCase()));
        if (found.length !== 1) {
          const names = kept.map((a) => a.name).join(", ");
          return `Which arrangement? ${names}.`;
        }
        desk.set(found[0].tiles);
        return "";
      },
    },
  ]);
  const all = arrangementsOf(desk);
  useKeys(
    Object.fromEntries(
      all.slice(0, MOST_KEYS).map((a, i) => [String(i + 1), () => desk.set(a.tiles)]),
    ),
  );
  const keep = async () => {
    try {
      await desk.keep(name);
      setNaming(false);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <div className={classes.sentence}>
      show{" "}
      <Choice
        label="Number of tiles"
        value={String(desk.tiles.count)}
        choices={COUNTS}
        onChange={(v) => desk.setCount(Number(v))}
      />
      ,{" "}
      <Menu position="bottom-start">
        <Menu.Target>
          <UnstyledButton
            aria-label="arrangement of tiles"
            style={{ borderBottom: "1.5px dotted var(--ink-soft)", fontSize: "0.92rem" }}
          >
            arrangement
          </UnstyledButton>
        </Menu.Target>
        <Menu.Dropdown>
          {all.map((a, i) => (
            <Menu.Item
              key={a.name}
              onClick={() => desk.set(a.tiles)}
              rightSection={i < MOST_KEYS ? <Key>{i + 1}</Key> : undefined}
            >
              {a.name}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item
            onClick={() => {
              setName("");
              setWrong("");
              setNaming(true);
            }}
          >
            Keep these tiles as ...
          </Menu.Item>
          {desk.kept.map((a) => (
            <Menu.Item key={a.id} color="red" onClick={() => desk.forget(a.id)}>
              Forget {a.name}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      {naming && (
        <FormModal
          title="Keep this arrangement of tiles"
          done="Keep it"
          wrong={wrong}
          onClose={() => setNaming(false)}
          onDone={keep}
        >
          <TextInput
            label="Name of the arrangement"
            data-autofocus
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
        </FormModal>
      )}
    </div>
  );
}
