import { parseQuantity } from "../../components/units";

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]/g, "");

/** The one key whose name begins so, or null. */
function named(choices: Record<string, string>, text: string): string | null {
  const exact = Object.keys(choices).find(
    (key) => plain(key) === plain(text) || plain(choices[key]) === plain(text),
  );
  const near = Object.keys(choices).filter((key) => plain(choices[key]).startsWith(plain(text)));
  return exact ?? (text && near.length === 1 ? near[0] : null);
}

/** A command that takes a number, or one of some words. */
export const numberCommand = (
  name: string,
  hint: string,
  unit: string,
  take: (value: number) => Promise<string>,
  words: Record<string, number> = {},
) => ({
  name,
  argument: unit ? `<${unit}>` : "<number>",
  hint,
  run: (text: string) => {
    const value = words[text.toLowerCase()] ?? parseQuantity(text, unit);
    return value === null ? `"${text}" is not a value for ${name}.` : take(value);
  },
});

/** A command that takes what is read of a text. */
export const typedCommand = <T>(
  name: string,
  argument: string,
  hint: string,
  read: (text: string) => { value: T } | { wrong: string },
  take: (value: T) => Promise<string>,
) => ({
  name,
  argument,
  hint,
  run: (text: string) => {
    const found = read(text);
    return "wrong" in found ? found.wrong : take(found.value);
  },
});

/** A command that takes one of some names. */
export const pickCommand = (
  name: string,
  hint: string,
  choices: Record<string, string>,
  take: (key: string) => Promise<string>,
) => ({
  name,
  argument: "<name>",
  hint,
  run: (text: string) => {
    const found = named(choices, text);
    return found ? take(found) : `Choose one of ${Object.values(choices).join(", ")}.`;
  },
});

/** A command that is done. */
export const actCommand = (name: string, hint: string, run: () => unknown) => ({
  name,
  argument: "",
  hint,
  run: () => {
    run();
    return "";
  },
});

/** Those that every desk of single records has. */
export const commonCommands = (
  model: { keep: (name: string) => Promise<string>; fitLevel: () => string },
  actions: { toggle: () => unknown; open: () => unknown },
) => [
  {
    name: "keep",
    argument: "<name>",
    hint: "keep a run",
    run: (name: string) => model.keep(name),
  },
  {
    name: "fit level",
    argument: "",
    hint: "reference level to what is there",
    run: model.fitLevel,
  },
  actCommand("start or hold", "start, hold, resume", actions.toggle),
  actCommand("open recording", "a SigMF pair", actions.open),
];
