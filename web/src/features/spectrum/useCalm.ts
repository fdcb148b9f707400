import { useEffect, useRef, useState } from "react";

/** Numbers that change faster than this cannot be read. */
const CALM_MILLIS = 150;

/**
 * The newest value, but changing no faster than it can be read. A value of another kind (the key
 * differs) is taken at once.
 */
export function useCalm<T>(value: T, key: string): T {
  const [calm, setCalm] = useState(value);
  const newest = useRef(value);
  const takenAt = useRef(0);
  const takenKey = useRef(key);
  newest.current = value;
  useEffect(() => {
    const since = performance.now() - takenAt.current;
    const take = () => {
      takenAt.current = performance.now();
      takenKey.current = key;
      setCalm(newest.current);
    };
    if (since >= CALM_MILLIS || takenKey.current !== key) {
      take();
    } else if (value !== calm) {
      const timer = setTimeout(take, CALM_MILLIS - since);
      return () => clearTimeout(timer);
    }
  }, [value, key, calm]);
  return calm;
}
