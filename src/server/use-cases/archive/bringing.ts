import { type Choice, type Choices, type ComparedItem, choiceFor } from "@/core/archive/comparison";
import type { NewNumbers } from "@/core/archive/renumber";
import type { LibraryStep } from "@/core/library/step";
import type { Incoming } from "../../archive/incoming";
import type { Statements } from "../../data/statements";
import type { Filing } from "../filing/entry";

/** One bringing-in: what all that do a part of it share. */
export interface Bringing {
  readonly filing: Filing;
  readonly statement: Statements;
  readonly incoming: Incoming;
  readonly choices: Choices;
  readonly items: ReadonlyMap<string, ComparedItem>;
  /** By which numbers what comes in mentions versions, once both are one. */
  readonly numbers: NewNumbers;
  readonly isRestore: boolean;
  readonly at: string;
  readonly folderOf: (id: string) => string | null;
  /** A folder that came in with this: it can go again only once nothing lies in it. */
  readonly isNewFolder: (id: string) => boolean;
  /** Takes a step of the library, and keeps it for the log. `at`: when it was done, there. */
  readonly take: (step: LibraryStep, at?: string) => Promise<void>;
  /** Keeps a step for the log that was taken already. */
  readonly keep: (step: LibraryStep) => void;
  /** Something cannot be taken; all else goes on. */
  readonly problem: (words: string) => void;
}

/** What is done with one thing that comes in. */
export const chosen = ({ items, choices }: Bringing, key: string): Choice => {
  const item = items.get(key);
  return item ? choiceFor(item, choices) : "leave";
};
