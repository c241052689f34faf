import type { PresetKind } from "../presets/preset";
import type { Standing } from "./join-versions";

/** How something that comes in stands to the library; `namesake`: another thing is filed there under its name; `unread`: it cannot be. */
export type ItemStanding = Standing | "namesake" | "unread";

/** In the order in which things ask for a look. */
export const STANDINGS_IN_ORDER: readonly ItemStanding[] = [
  "unread",
  "forked",
  "namesake",
  "new",
  "newer",
  "older",
  "same",
];

/** What can be done with something that comes in. `asVersion`: as the next version of its namesake. */
export type Choice = "take" | "leave" | "asVersion";

/** One thing of an archive, held against the library. */
export interface ComparedItem {
  /** Of it among all that come in. */
  readonly key: string;
  readonly kind: "preset" | "project";
  /** What a preset holds; null for a project, and for what cannot be read. */
  readonly holds: PresetKind | null;
  readonly id: string;
  readonly name: string;
  /** The folders that it lies in, one within the other; of a project, its client. */
  readonly place: string;
  readonly standing: ItemStanding;
  /** Versions, or changes of a project, there and here. */
  readonly theirs: number;
  readonly own: number;
  /** Of one that is newer or older, whether that is only how it is filed: its name, its folder, its tags, the bin. */
  readonly isCardAlone: boolean;
  /** It was thrown away here, and not there. */
  readonly isBinnedHere: boolean;
  /** When it was saved, or changed, last there. */
  readonly at: string | null;
  /** A sound of the library that it is named like, or, under another name, set like. */
  readonly like: { readonly id: string; readonly name: string; readonly by: "name" | "sound" } | null;
  /** Where it stands in the file, and why it cannot be read. */
  readonly problem: string | null;
}

/** What is brought along beside sounds and projects. */
export interface ComparedRest {
  /** Folders that are new, and that are called or stand otherwise. */
  readonly folders: { readonly isNew: number; readonly isChanged: number };
  /** Things that were set up there and not here. */
  readonly settings: number;
  readonly media: number;
}

export interface Comparison {
  readonly items: readonly ComparedItem[];
  readonly rest: ComparedRest;
  /** All of a library comes into one that has nothing of its own. */
  readonly isRestore: boolean;
}

/** What says which choices there are. */
export type Choosable = Pick<ComparedItem, "standing"> & Partial<Pick<ComparedItem, "isCardAlone" | "isBinnedHere">>;

/** What can be done with something, the usual first. */
export function choicesOf({ standing, isCardAlone = false, isBinnedHere = false }: Choosable): readonly Choice[] {
  return standing === "older" && (isCardAlone || isBinnedHere) ? ["leave", "take"] : USUAL_CHOICES[standing];
}

const USUAL_CHOICES: Readonly<Record<ItemStanding, readonly Choice[]>> = {
  new: ["take", "leave"],
  newer: ["take", "leave"],
  forked: ["take", "leave"],
  namesake: ["take", "asVersion", "leave"],
  same: ["leave"],
  older: ["leave"],
  unread: ["leave"],
};

/** What was chosen, for each thing and for each group of those that stand alike; the thing's own choice comes first. */
export interface Choices {
  readonly items: Readonly<Record<string, Choice>>;
  readonly groups: Readonly<Partial<Record<ItemStanding, Choice>>>;
}

export function choiceFor(item: Choosable & Pick<ComparedItem, "key">, { items, groups }: Choices): Choice {
  const possible = choicesOf(item);
  const wanted = items[item.key] ?? groups[item.standing];
  return wanted !== undefined && possible.includes(wanted) ? wanted : possible[0]!;
}
