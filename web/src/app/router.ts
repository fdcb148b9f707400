import { useSyncExternalStore } from "react";

const listeners = new Set<() => void>();

function subscribe(listener: () => void) {
  listeners.add(listener);
  window.addEventListener("popstate", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("popstate", listener);
  };
}

/** Goes to an address of ours without loading the page anew. */
export function go(to: string) {
  history.pushState(null, "", to);
  for (const listener of listeners) {
    listener();
  }
}

/** Path and query of the address. */
export function useAddress() {
  const text = useSyncExternalStore(subscribe, () => location.pathname + location.search);
  const url = new URL(text, location.origin);
  return { area: url.pathname.split("/")[1] || "spectrum", query: url.searchParams };
}
