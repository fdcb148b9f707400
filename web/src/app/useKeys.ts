import { useEffect, useRef } from "react";

const TYPING = new Set(["INPUT", "TEXTAREA", "SELECT"]);

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
        TYPING.has(target.tagName) ||
        target.isContentEditable ||
        document.querySelector("[role=dialog]") !== null;
      if (!action || busy || e.ctrlKey || e.altKey || e.metaKey) {
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
