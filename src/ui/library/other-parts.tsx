import { PART } from "@/core/strips/parts";
import { type SavedStrip, partsOf } from "@/core/strips/strip";

/** ", also level, pan": what a saved strip holds beside its inserts. */
export function OtherParts({ strip }: { readonly strip: SavedStrip }) {
  const others = partsOf(strip).filter((part) => part !== "inserts");
  return others.length > 0 && `, also ${others.map((part) => PART[part].title.toLowerCase()).join(", ")}`;
}
