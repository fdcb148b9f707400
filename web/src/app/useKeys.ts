import { useEffect, useRef } from "react";

const TYPING = new Set(["INPUT", "TEXTAREA", "SELECT"]);
/** Inputs that take no text: the keys of a screen work while they have the focus. */
const TEXTLESS = new Set(["checkbox", "radio", "button", "file"]);

/** Whether the focus was moved by the tab key since the mouse was used last. */
let byTab = false;
document.addEventListener("keydown", (e) => {
  byTab = byTab || e.key === "Tab";
});
document.addEventListener("pointerdown", () => {
  byTab = false;
});

/** A list that is chosen from stands as an input that cannot be written in. */
const chooses = (target: HTMLElement) => (target as HTMLInputElement).readOnly === true;

function typing(target: HTMLElement): boolean {
  return (
    TYPING.has(target.tagName) &&
    !TEXTLESS.has((target as HTMLInputElement).type) &&
    !(chooses(target) && target.getAttribute("aria-expanded") !== "true")
  );
}

/**
 * Keys of a screen by what they print ("-", "?", " "), whatever the keyboard's layout. They rest
 * while something is being typed, while a dialog is open, and with Ctrl, Alt or Meta held.
 */
export function useKeys(keys: Record<string, () => unknown>) {
  const current = useRef(keys);
  current.current = keys;
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      const action = current.current[e.key];
      const busy =
        typing(target) ||
        target.isContentEditable ||
        document.querySelector("[role=dialog]") !== null;
      // Space ticks a box, opens a list, and presses the button that the keyboard came to.
      const ticks =
        e.key === " " &&
        ((target as HTMLInputElement).type === "checkbox" ||
          chooses(target) ||
          (target.tagName === "BUTTON" && byTab));
      if (!action || ticks || busy || e.ctrlKey || e.altKey || e.metaKey) {
        return;
      }
      e.preventDefault();
      // Space must not also press the button that was clicked last.
      (document.activeElement as HTMLElement | null)?.blur();
      action();
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, []);
}
