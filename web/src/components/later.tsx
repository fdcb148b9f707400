import { type ComponentType, lazy, Suspense } from "react";

/** A component whose code is fetched when it is first shown; dialogs are not part of a first load. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Fetched = lazy(async () => ({ default: await load() })) as unknown as ComponentType<P>;
  return function Later(props: P) {
    return (
      <Suspense fallback={null}>
        <Fetched {...props} />
      </Suspense>
    );
  };
}
