import { useState } from "react";
import { useKeys } from "../app/useKeys";

/** The glance view: verdict, judged reading and plot fill the screen. The key g turns it on and off. */
export function useGlance(): boolean {
  const [glance, setGlance] = useState(false);
  useKeys({ g: () => setGlance(!glance) });
  return glance;
}
