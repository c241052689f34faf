import { isWindowName, windowName } from "@/core/documents/window";

const KEPT_AS = "diathesis-window";
const LETTERS = "0123456789abcdefghijklmnopqrstuvwxyz";

const letters = (n: number): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(n)), (byte) => LETTERS[byte % LETTERS.length] ?? "0").join("");

/** The name of this window, the same after it was loaded anew; null where nothing is kept of one. */
export function thisWindow(): string | null {
  if (typeof sessionStorage === "undefined") return null;
  const kept = sessionStorage.getItem(KEPT_AS) ?? "";
  if (isWindowName(kept)) return kept;
  const name = windowName(new Date(), letters(4));
  sessionStorage.setItem(KEPT_AS, name);
  return name;
}
