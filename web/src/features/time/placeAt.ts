import type { PlaceSettings } from "../../api/client";

/** A place as it is typed, "regulator, 20, 35" in millimetres; or what is wrong with it. */
export function placeAt(text: string): Partial<PlaceSettings> | string {
  const [name, ...edges] = text.split(",").map((part) => part.trim());
  const mm = edges.map((e) => Number(e.replace(/\s*mm$/, "")));
  if (!name || edges.length === 1 || edges.length > 2 || mm.some((v) => !Number.isFinite(v))) {
    return "Type a name, or a name and where it is in mm: regulator, 20, 35.";
  }
  return mm.length === 2
    ? { place: name, acrossMetres: mm[0] / 1000, upMetres: mm[1] / 1000 }
    : { place: name };
}
