import { api, type Recording } from "../../api/client";
import { formatEngineering } from "../../components/units";

export const TRIGGERS: Record<string, string> = {
  none: "nothing",
  rises: "a rise over",
  falls: "a fall below",
};

/** Keeps the newest seconds of a stream as a recording; says what came of it. */
export async function keepNewest(url: string, seconds: number): Promise<string> {
  const name = `${new Date().toISOString().slice(0, 19).replace("T", " ")} UTC`;
  const kept = await api.post<Recording>(`${url}/recording`, { name, seconds });
  return `recording "${kept.name}", ${formatEngineering(kept.seconds, "s")}`;
}
