import { useState } from "react";
import { parseQuantity } from "../components/units";

/** Texts of a form with their units; a number that cannot be read is named. */
export function useDraft(initial: Record<string, string>) {
  const [texts, setTexts] = useState(initial);
  const [wrong, setWrong] = useState("");
  /** The number in a field; null for an empty one. Throws a sentence if it is neither. */
  const number = (field: string, unit: string): number | null => {
    const text = (texts[field] ?? "").trim();
    if (text === "") {
      return null;
    }
    const value = parseQuantity(text, unit);
    if (value === null) {
      throw new Error(`"${text}" is not a number${unit ? ` in ${unit}` : ""}. Correct it.`);
    }
    return value;
  };
  return {
    texts,
    set: (field: string, text: string) => setTexts((t) => ({ ...t, [field]: text })),
    number,
    wrong,
    /** Runs what may throw a sentence, and shows it. */
    attempt: async (work: () => Promise<string | undefined>) => {
      try {
        setWrong((await work()) ?? "");
      } catch (e) {
        setWrong((e as Error).message);
      }
    },
  };
}
