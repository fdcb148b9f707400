import { useState } from "react";

/**
 * Which of an area's measurements is shown, remembered as long as the page is open.
 *
 * @param key under which it is remembered
 * @param kinds that there are; the first is the one to begin with
 */
export function useKind<K extends string>(
  key: string,
  kinds: Record<K, string>,
): [K, (kind: K) => void] {
  const known = Object.keys(kinds) as K[];
  const [kind, setKind] = useState<K>(
    () => known.find((k) => k === sessionStorage.getItem(key)) ?? known[0],
  );
  return [
    kind,
    (wanted) => {
      sessionStorage.setItem(key, wanted);
      setKind(wanted);
    },
  ];
}
