import type { FileBy, FiledBy } from "@/contracts/library";
import { pathsOf } from "@/core/library/folders";
import { homeOf } from "@/core/library/filed-in";
import { type FolderRecord, type LibraryStep, cardStep } from "@/core/library/step";
import { cutText } from "@/core/names/cut";
import { fold } from "@/core/names/words";
import type { Card } from "@/core/presets/preset";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { transact } from "../../store/transact";
import { type Outcome, refuse } from "../../failure";
import { listFolders } from "../../repositories/folders";
import { takingTurns } from "../../turns";
import { fileAndTell } from "./entry";
import { presetOf } from "./steps";
import { count } from "./words";

/** Letters of a folder's name. */
const LONGEST = 120;

/** Sounds that name one artist or client, and the folder for them. */
interface Group {
  readonly folder: FolderRecord;
  readonly isNew: boolean;
  readonly presets: { readonly id: string; readonly card: Card }[];
}

interface Grouped {
  readonly groups: readonly Group[];
  /** How each folder is called with those above it. */
  readonly paths: ReadonlyMap<string, string>;
  /** How many name nobody; they stay where they are. */
  readonly without: number;
}

/** The folder of a name: at the top, else the only one that is called so anywhere. */
function folderFor(folders: readonly FolderRecord[], name: string): FolderRecord | null {
  const called = folders.filter((folder) => fold(folder.name) === fold(name));
  const top = called.filter(({ parent }) => parent === null);
  return top.find((folder) => folder.name === name) ?? top[0] ?? (called.length === 1 ? (called[0] ?? null) : null);
}

async function groupsOf(context: Context, tx: Executor, { by, ids }: FileBy): Promise<Grouped> {
  const folders = await listFolders(tx);
  const groups = new Map<string, Group>();
  const turn = takingTurns();
  let without = 0;
  for (const id of new Set(ids)) {
    await turn();
    const { card } = await presetOf(tx, id);
    const name = cutText(card.origin[by]?.trim() ?? "", LONGEST).trim();
    if (name === "") {
      without += 1;
      continue;
    }
    const known = groups.get(fold(name));
    const found = known ? null : folderFor(folders, name);
    const group = known ?? {
      folder: found ?? { id: context.mint(), name, parent: null },
      isNew: found === null,
      presets: [],
    };
    group.presets.push({ id, card });
    groups.set(fold(name), group);
  }
  if (groups.size === 0) refuse("refused", `None of them names ${by === "artist" ? "an artist" : "a client"}.`);
  return { groups: [...groups.values()], paths: pathsOf(folders), without };
}

const moving = ({ folder, presets }: Group) => presets.filter(({ card }) => card.folder !== folder.id);

const told = ({ groups, paths, without }: Grouped): FiledBy => ({
  groups: groups.map((group) => ({
    path: paths.get(group.folder.id) ?? group.folder.name,
    isNew: group.isNew,
    n: moving(group).length,
    already: group.presets.length - moving(group).length,
  })),
  without,
});

const stepsOf = ({ groups }: Grouped): readonly LibraryStep[] => [
  ...groups.filter(({ isNew }) => isNew).map(({ folder }): LibraryStep => ({ kind: "folder", from: null, to: folder })),
  ...groups.flatMap((group) =>
    moving(group).map(({ id, card }): LibraryStep => cardStep(id, card, homeOf(card, group.folder.id))),
  ),
];

/**
 * Files presets into folders that are called as their artists or clients are, those that are there or new ones at the top; what names
 * nobody stays where it is. With `preview` it only says what would come of it.
 */
export function fileBy(context: Context, asked: FileBy): Promise<Outcome<FiledBy>> {
  if (asked.preview === true) return transact(context, async (tx) => told(await groupsOf(context, tx, asked)));
  let grouped: Grouped | null = null;
  const make = async (tx: Executor) => {
    grouped = await groupsOf(context, tx, asked);
    const moved = grouped.groups.reduce((sum, group) => sum + moving(group).length, 0);
    return { label: `File ${count(moved, "one sound")} by ${asked.by}`, steps: stepsOf(grouped) };
  };
  return fileAndTell(context, make, () => told(grouped!));
}
