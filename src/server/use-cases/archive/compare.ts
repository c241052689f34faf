import type { FiledPreset } from "@/core/archive/documents";
import { type ComparedItem, type Comparison, STANDINGS_IN_ORDER } from "@/core/archive/comparison";
import { type DatedFolder, type JoinedFolders, joinFolders } from "@/core/archive/join-folders";
import { type Mark, joinHistories } from "@/core/archive/join-histories";
import { filingOf, joinPreset } from "@/core/archive/join-preset";
import { joinSettings } from "@/core/archive/join-settings";
import { standingOfVersions } from "@/core/archive/join-versions";
import { wordsOfProblem } from "@/core/documents/problem";
import { NO_SETTINGS, type Settings } from "@/core/settings/settings";
import type { Incoming, Read, ReadProject } from "../../archive/incoming";
import type { Statements } from "../../data/statements";
import { readCard } from "../../data/stored";
import type { FolderTable, MediaTable, PresetTable, SettingsTable } from "../../data/tables";
import { findMarks } from "../../repositories/filed-projects";
import { findOwn } from "../../repositories/filed-presets";
import { sortName } from "../../repositories/presets";
import { takingTurns } from "../../turns";

/** The folders of the library, each with when it was changed last. */
export const ownFolders = (statement: Statements): readonly DatedFolder[] =>
  statement<FolderTable>("SELECT id, name, parent, changed_at FROM folders")
    .all()
    .map(({ changed_at, ...folder }) => ({ ...folder, changedAt: changed_at }));

/** Where a folder of theirs is once both are one; null where it is not among them. */
export function placing({ folders, instead }: JoinedFolders): (id: string) => string | null {
  const known = new Set(folders.map(({ id }) => id));
  return (id) => instead.get(id) ?? (known.has(id) ? id : null);
}

/** Whether a library has nothing that a person made. */
export function isUntouched(statement: Statements): boolean {
  const any = (sql: string) => statement(sql).get() !== undefined;
  return !(
    any("SELECT 1 FROM presets WHERE pack IS NULL LIMIT 1") ||
    any("SELECT 1 FROM projects LIMIT 1") ||
    any("SELECT 1 FROM library_log LIMIT 1")
  );
}

interface Held {
  readonly statement: Statements;
  readonly folderOf: (id: string) => string | null;
  readonly pathOf: (folder: string | null) => string;
}

/** A sound that is filed in the same place under the same name, or one that is set the same. */
function likeness({ statement }: Held, preset: FiledPreset, folder: string | null): ComparedItem["like"] {
  const newest = preset.versions.at(-1)!;
  const named = statement<Pick<PresetTable, "id" | "card">>(
    "SELECT id, card FROM presets WHERE sort_name = ? AND folder IS ? AND kind = ? AND binned_at IS NULL AND pack IS NULL LIMIT 1",
  ).get(sortName(preset.card.name), folder, newest.content.kind);
  if (named) return { id: named.id, name: readCard(named.card).name, by: "name" };
  const set = statement<Pick<PresetTable, "id" | "card">>(
    `SELECT p.id, p.card FROM preset_versions v JOIN presets p ON p.id = v.preset AND p.version = v.version
     WHERE v.fingerprint = ? AND p.binned_at IS NULL LIMIT 1`,
  ).get(newest.fingerprint);
  return set ? { id: set.id, name: readCard(set.card).name, by: "sound" } : null;
}

/** Of a thing of which nothing is known yet. */
const UNKNOWN = {
  holds: null,
  place: "",
  theirs: 0,
  own: 0,
  isCardAlone: false,
  isBinnedHere: false,
  at: null,
  like: null,
  problem: null,
} as const;

/** How a sound stands to the one of its id; where there is none, to what it is like. */
function standingOf(
  held: Held,
  preset: FiledPreset,
): Pick<ComparedItem, "standing" | "own" | "isCardAlone" | "isBinnedHere" | "like"> {
  const filing = filingOf(preset, held.folderOf);
  const own = findOwn(held.statement, preset.id);
  if (!own) {
    const like = likeness(held, preset, filing.card.folder);
    return { ...UNKNOWN, standing: like?.by === "name" ? "namesake" : "new", like };
  }
  const { standing, filed, versions } = joinPreset(own, preset, filing);
  return {
    standing,
    own: own.versions.length,
    isCardAlone: standing === filed && standingOfVersions(versions) === "same",
    isBinnedHere: own.isBinned && !filing.isBinned,
    like: null,
  };
}

function comparePreset(held: Held, { where, called, document }: Read<FiledPreset>, at: number): ComparedItem {
  if (!document.ok) {
    const problem = wordsOfProblem(where, document.error);
    return { ...UNKNOWN, key: `unread:${at}`, kind: "preset", id: "", name: called, standing: "unread", problem };
  }
  const preset = document.value;
  const { card, versions } = preset;
  return {
    ...UNKNOWN,
    ...standingOf(held, preset),
    key: `preset:${preset.id}`,
    kind: "preset",
    holds: versions[0]!.content.kind,
    id: preset.id,
    name: card.name,
    place: held.pathOf(card.folder === null ? null : held.folderOf(card.folder)),
    theirs: versions.length,
    at: versions.at(-1)!.savedAt,
  };
}

/** How a past stands to the one here; one that was laid beside its project before, to that. `at`: the project that it was held against. */
function standingOfPast(
  statement: Statements,
  id: string,
  { marks, theirs }: { readonly marks: readonly Mark[]; readonly theirs: readonly Mark[] },
): { readonly standing: Exclude<ComparedItem["standing"], "namesake" | "unread">; readonly at: string } {
  const { standing, aside } = joinHistories(id, marks, theirs);
  const beside = standing === "forked" ? findMarks(statement, aside) : null;
  const again = beside ? joinHistories(aside, beside, theirs).standing : "forked";
  return again === "forked" ? { standing, at: id } : { standing: again, at: aside };
}

async function compareProject(
  { statement }: Held,
  { where, called: name, id, document, changes }: ReadProject,
): Promise<ComparedItem> {
  const past = await changes();
  const unread = { ...UNKNOWN, key: `project:${id}`, kind: "project", id, name, standing: "unread" } as const;
  for (const part of [document, past]) if (!part.ok) return { ...unread, problem: wordsOfProblem(where, part.error) };
  if (!document.ok || !past.ok) return unread;
  const { project, changedAt, binnedAt } = document.value;
  const marks = findMarks(statement, id);
  const { standing, at } = marks
    ? standingOfPast(statement, id, { marks, theirs: past.value })
    : ({ standing: "new", at: id } as const);
  const isBinned = statement("SELECT 1 FROM projects WHERE id = ? AND binned_at IS NOT NULL").get(at) !== undefined;
  const isBinnedHere = isBinned && binnedAt === null;
  return {
    ...unread,
    // What went no further there, and lies in the bin here, can be taken out.
    standing: standing === "same" && isBinnedHere ? "older" : standing,
    place: project.client,
    theirs: past.value.length,
    own: marks?.length ?? 0,
    isBinnedHere,
    at: changedAt,
  };
}

/** The names on the way to a folder. */
export function pathsIn(folders: readonly DatedFolder[]): (folder: string | null) => string {
  const byId = new Map(folders.map((folder) => [folder.id, folder]));
  const known = new Map<string, string>();
  const pathOf = (id: string | null): string => {
    const folder = byId.get(id ?? "");
    if (!folder) return "";
    const path = known.get(folder.id) ?? [pathOf(folder.parent), folder.name].filter((name) => name !== "").join(" / ");
    known.set(folder.id, path);
    return path;
  };
  return pathOf;
}

/** How many things that were set up are other than here. */
function countSettings(own: Settings, joined: Settings): number {
  const more = (name: "searches" | "shortcuts" | "startingPoints" | "choices") =>
    joined[name].length - own[name].length;
  return more("searches") + more("shortcuts") + more("startingPoints") + more("choices");
}

const settingsHere = (statement: Statements): { readonly settings: Settings; readonly revision: number } => {
  const row = statement<Pick<SettingsTable, "revision" | "body">>("SELECT revision, body FROM settings").get();
  const stored = row ? (JSON.parse(row.body) as Partial<Settings>) : {};
  return { settings: { ...NO_SETTINGS, ...stored }, revision: row?.revision ?? 0 };
};

async function compareRest(
  statement: Statements,
  incoming: Incoming,
  joined: JoinedFolders,
): Promise<Comparison["rest"]> {
  const own = new Map(ownFolders(statement).map((folder) => [folder.id, folder]));
  const isOther = ({ id, name, parent }: DatedFolder) => own.get(id)?.name !== name || own.get(id)?.parent !== parent;
  const there = await incoming.settings();
  const here = settingsHere(statement);
  const known = statement<Pick<MediaTable, "hash">>("SELECT hash FROM media WHERE hash = ?");
  return {
    folders: {
      isNew: joined.folders.filter(({ id }) => !own.has(id)).length,
      isChanged: joined.folders.filter((folder) => own.has(folder.id) && isOther(folder)).length,
    },
    settings: there ? countSettings(here.settings, joinSettings(here, there).settings) : 0,
    media: (await incoming.media()).filter(({ hash }) => known.get(hash) === undefined).length,
  };
}

/** Holds what comes in against the library, thing by thing; nothing is written. `onItem` hears of each. */
export async function compareIncoming(
  statement: Statements,
  incoming: Incoming,
  onItem: () => void = () => undefined,
): Promise<Comparison> {
  const turn = takingTurns();
  const joined = joinFolders(ownFolders(statement), await incoming.folders());
  const held: Held = { statement, folderOf: placing(joined), pathOf: pathsIn(joined.folders) };
  const items: ComparedItem[] = [];
  for await (const read of incoming.presets()) {
    items.push(comparePreset(held, read, items.length));
    onItem();
    await turn();
  }
  for await (const read of incoming.projects()) {
    onItem();
    if (read.document.ok && read.document.value.draft) continue;
    items.push(await compareProject(held, read));
    await turn();
  }
  const isRestore = incoming.isWhole && isUntouched(statement);
  const order = new Map(STANDINGS_IN_ORDER.map((standing, at) => [standing, at]));
  items.sort((a, b) => order.get(a.standing)! - order.get(b.standing)!);
  return { items, rest: await compareRest(statement, incoming, joined), isRestore };
}
