import type { ArchiveFile } from "@/contracts/archive";
import type { Choice, Choosable, ItemStanding } from "@/core/archive/comparison";
import { formatSize } from "../projects/size";

/** "1.2 MB". */
export const sizeWords = (bytes: number): string => {
  const { text, unit } = formatSize(bytes);
  return `${text} ${unit}`;
};

export const KIND_WORDS: Readonly<Record<ArchiveFile["kind"], string>> = {
  archive: "archive",
  backup: "backup",
  copy: "copy before an update",
};

/** How what comes in stands, in words. */
export const STANDING_WORDS: Readonly<Record<ItemStanding, { readonly words: string; readonly about: string }>> = {
  new: { words: "New", about: "Not here yet." },
  newer: { words: "Newer there", about: "Here as it was before; there it went on." },
  forked: { words: "Changed on both", about: "Both went on since they were one. Nothing of either is lost." },
  namesake: { words: "Same name", about: "Another one is filed here in the same place under its name." },
  older: { words: "Older there", about: "Here it went on; it stays as it is here." },
  same: { words: "The same", about: "Here as it is there." },
  unread: { words: "Cannot be read", about: "It is left out; all else comes in." },
};

/** What a choice does, by how the thing stands. */
export function choiceWords({ standing, isBinnedHere = false }: Choosable, choice: Choice): string {
  if (choice === "leave") return standing === "older" ? "As it is here" : "Leave out";
  if (standing === "older") return isBinnedHere ? "Out of the bin" : "As it is there";
  if (choice === "asVersion") return "As its next version";
  if (standing === "newer") return "Bring up to date";
  if (standing === "forked") return "Keep both";
  return standing === "namesake" ? "Beside it" : "Bring in";
}
