import { useEffect, useRef } from "react";

/** Something that can be typed into the quick entry: a setting with a value, or an action. */
export interface Command {
  name: string;
  /** What it takes, "" if nothing. */
  argument: string;
  hint: string;
  /** Returns "" or what is wrong. */
  run: (argument: string) => Promise<string> | string;
}

const registry = new Map<string, Command>();

/** Offers commands while a screen is shown. */
export function useCommands(commands: Command[]) {
  const current = useRef(commands);
  current.current = commands;
  const names = commands.map((c) => c.name).join("\n");
  useEffect(() => {
    const mine = names.split("\n");
    for (const name of mine) {
      const find = () => current.current.find((c) => c.name === name);
      registry.set(name, {
        name,
        argument: find()?.argument ?? "",
        hint: find()?.hint ?? "",
        run: (argument) => find()?.run(argument) ?? "",
      });
    }
    return () => {
      for (const name of mine) {
        registry.delete(name);
      }
    };
  }, [names]);
}

export function allCommands(): Command[] {
  return [...registry.values()];
}

/** Runs "span 200k", "keep", or a bare value, which is the centre. */
export async function runEntry(text: string): Promise<string> {
  const entry = text.trim();
  if (!entry) {
    return "";
  }
  const bare = /^[+-]?[\d.]/.test(entry) ? registry.get("centre") : undefined;
  if (bare) {
    return bare.run(entry);
  }
  const matching = allCommands()
    .filter((c) => `${entry.toLowerCase()} `.startsWith(`${c.name} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  const single = allCommands().filter((c) => c.name.startsWith(entry.toLowerCase()));
  if (matching) {
    return matching.run(entry.slice(matching.name.length).trim());
  }
  if (single.length === 1 && !single[0].argument) {
    return single[0].run("");
  }
  return `"${entry}" is not known here. Press ? for what can be typed.`;
}
