import { useSyncExternalStore } from "react";

/** A value outside React, with those who want to know when it changes. */
export class Cell<T> {
  private readonly listeners = new Set<() => void>();

  constructor(private value: T) {}

  get = () => this.value;

  set(next: T) {
    if (next !== this.value) {
      this.value = next;
      for (const l of this.listeners) {
        l();
      }
    }
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => {
      this.listeners.delete(listener);
    };
  };
}

const NOTHING = () => () => {};

/** Follows a cell; null without one. */
export function useCell<T>(cell: Cell<T> | undefined): T | null {
  return useSyncExternalStore<T | null>(cell?.subscribe ?? NOTHING, cell?.get ?? (() => null));
}
