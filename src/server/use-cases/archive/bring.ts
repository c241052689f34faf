import equal from "fast-deep-equal";
import { createHash } from "node:crypto";
import type { Choices, ComparedItem } from "@/core/archive/comparison";
import type { FiledPreset } from "@/core/archive/documents";
import { joinFolders } from "@/core/archive/join-folders";
import { joinSettings } from "@/core/archive/join-settings";
import { renumberVersions } from "@/core/archive/renumber";
import { readWav } from "@/core/formats/wav/wav";
import { foldersOf } from "@/core/library/filed-in";
import { type LibraryStep, cardStep } from "@/core/library/step";
import { refiled } from "@/core/archive/join-preset";
import { wordsOfProblem } from "@/core/documents/problem";
import { counted } from "@/core/names/count";
import { updateFolder } from "../../repositories/folders";
import { insertMedia, findMedia } from "../../repositories/media";
import type { Incoming, ReadProject } from "../../archive/incoming";
import { NotTaken } from "../../archive/zip-in";
import { statementsOf } from "../../data/statements";
import { readCard } from "../../data/stored";
import type { PresetTable } from "../../data/tables";
import type { Outcome } from "../../failure";
import { refuse } from "../../failure";
import { insertEntry } from "../../repositories/library-log";
import { insertWrapUp } from "../../repositories/wrap-ups";
import { readSettings, writeSettings } from "../../repositories/settings";
import type { Context } from "../../store/context";
import { transact } from "../../store/transact";
import { stepByStep } from "../../store/work";
import { takingTurns } from "../../turns";
import { type Filing, keepEntry } from "../filing/entry";
import { applyStep } from "../filing/steps";
import { bringPreset, linkMerged } from "./bring-preset";
import { bringProject } from "./bring-project";
import { isUntouched, ownFolders, placing } from "./compare";
import type { Bringing } from "./bringing";
import { numbersOf } from "./numbers";

/** What came of it. */
export interface Brought {
  readonly presets: number;
  readonly projects: number;
  /** Its number in the library's log, by which it is taken back; null where nothing can be: all of a library came into an empty one. */
  readonly undo: number | null;
  /** What could not be taken, and why. */
  readonly problems: readonly string[];
}

/** What all have in common before any folder is there. */
type Begun = Omit<Bringing, "folderOf" | "isNewFolder">;

/** Folders first, so that what comes in has where to go. */
async function bringFolders(bringing: Begun): Promise<Pick<Bringing, "folderOf" | "isNewFolder">> {
  const { filing, statement, incoming, take } = bringing;
  const own = ownFolders(statement);
  const joined = joinFolders(own, await incoming.folders());
  const here = new Map(own.map((folder) => [folder.id, folder]));
  for (const { changedAt, ...to } of joined.folders) {
    const standing = here.get(to.id);
    const from = standing ? { id: standing.id, name: standing.name, parent: standing.parent } : null;
    if (equal(from, to)) {
      if (changedAt !== standing?.changedAt) await updateFolder(filing.tx, to, changedAt);
      continue;
    }
    await makeWay(bringing, to, here);
    await take({ kind: "folder", from, to }, changedAt);
    here.set(to.id, { ...to, changedAt });
  }
  const folderOf = placing(joined);
  await empty(bringing, joined.instead, folderOf);
  const before = new Set(own.map(({ id }) => id));
  return { folderOf, isNewFolder: (id) => !before.has(id) };
}

/** Where another folder has the name still, and will have another or be one with this, it is called otherwise for a moment. */
async function makeWay(
  { take }: Pick<Bringing, "take">,
  { id, name, parent }: { readonly id: string; readonly name: string; readonly parent: string | null },
  here: Map<
    string,
    { readonly id: string; readonly name: string; readonly parent: string | null; readonly changedAt: string }
  >,
): Promise<void> {
  const taken = [...here.values()].find(
    (other) => other.id !== id && other.parent === parent && isAlike(other.name, name),
  );
  if (!taken) return;
  const { changedAt, ...from } = taken;
  const to = { ...from, name: `${from.name.slice(0, 80)} ${from.id}` };
  await take({ kind: "folder", from, to }, changedAt);
  here.set(taken.id, { ...to, changedAt });
}

const isAlike = (a: string, b: string): boolean => a.localeCompare(b, undefined, { sensitivity: "base" }) === 0;

/** What lies in a folder that is one with another lies in that, and the folder goes. */
async function empty(
  { statement, take, at }: Begun,
  instead: ReadonlyMap<string, string>,
  folderOf: Bringing["folderOf"],
): Promise<void> {
  const inside = statement<Pick<PresetTable, "id" | "card">>(
    "SELECT id, card FROM presets WHERE folder = ? OR row IN (SELECT preset FROM preset_references WHERE folder = ?)",
  );
  const gone = ownFolders(statement).filter(({ id }) => instead.has(id));
  for (const { id } of gone)
    for (const { id: preset, card: text } of inside.all(id, id)) {
      const card = readCard(text);
      if (!foldersOf(card).includes(id)) continue;
      const { folder, alsoIn = null } = refiled(card, folderOf);
      await take(cardStep(preset, card, { folder, ...(card.alsoIn || alsoIn ? { alsoIn } : {}) }), at);
    }
  // The innermost first.
  for (let left = gone; left.length > 0; ) {
    const innermost = left.filter(({ id }) => !left.some(({ parent }) => parent === id));
    for (const { id, name, parent } of innermost) await take({ kind: "folder", from: { id, name, parent }, to: null });
    left = left.filter((folder) => !innermost.includes(folder));
  }
}

async function bringMedia({ filing: { tx, note }, incoming }: Bringing): Promise<void> {
  for (const { hash, name, seconds, addedAt } of await incoming.media()) {
    if (await findMedia(tx, hash)) continue;
    const bytes = await incoming.mediaBytes(hash);
    if (createHash("sha256").update(bytes).digest("hex") !== hash)
      throw new NotTaken(`“media/${hash}.wav” is not the sound that it is called by.`);
    const sound = readWav(bytes);
    if (!sound.ok) throw new NotTaken(`“media/${hash}.wav”: ${sound.error}`);
    await insertMedia(tx, { hash, name, seconds, addedAt }, bytes);
    note({ kind: "media", id: hash });
  }
}

async function bringSettings({ filing: { tx }, incoming, numbers, folderOf, take }: Bringing): Promise<void> {
  const given = await incoming.settings();
  if (!given) return;
  const { settings } = renumberVersions(given, numbers);
  const searches = settings.searches.map((search) => ({
    ...search,
    folder: search.folder === null ? null : folderOf(search.folder),
  }));
  const own = await readSettings(tx);
  const joined = joinSettings(own, { revision: given.revision, settings: { ...settings, searches } });
  if (equal(own, joined)) return;
  if (!equal(own.settings, joined.settings)) await take({ kind: "settings", from: own.settings, to: joined.settings });
  await writeSettings(tx, joined);
}

/** All that was done to a library comes with it, where nothing was done here. */
async function bringPast({ filing: { tx }, incoming }: Bringing): Promise<void> {
  for await (const entry of incoming.entries()) await insertEntry(tx, entry);
  for await (const wrapUp of incoming.wrapUps()) await insertWrapUp(tx, wrapUp);
}

const isDraft = ({ document }: ReadProject): boolean => document.ok && document.value.draft !== null;

async function bringAll(bringing: Bringing, onItem: () => void): Promise<Pick<Brought, "presets" | "projects">> {
  const { incoming, isRestore } = bringing;
  const turn = takingTurns();
  let [presets, projects] = [0, 0];
  await bringMedia(bringing);
  const merged: FiledPreset[] = [];
  for await (const { where, document } of incoming.presets()) {
    onItem();
    await turn();
    if (!document.ok) {
      bringing.problem(wordsOfProblem(where, document.error));
      continue;
    }
    if (await bringPreset(bringing, document.value)) presets += 1;
    if (document.value.mergedInto !== null) merged.push(document.value);
  }
  for (const preset of merged) await linkMerged(bringing, preset);
  for await (const read of incoming.projects()) {
    onItem();
    if (isDraft(read) && !isRestore) continue;
    if (await bringProject(bringing, read)) projects += 1;
    await turn();
  }
  await bringSettings(bringing);
  if (isRestore) await bringPast(bringing);
  return { presets, projects };
}

/** Of what was compared beforehand: what each thing is, and of which file. */
export interface Wanted {
  readonly items: readonly ComparedItem[];
  readonly choices: Choices;
  /** What the library's history calls it. */
  readonly called: string;
}

/**
 * Brings in what was chosen, as one step that one undo takes back, all or nothing. What is left as it is keeps its numbers; where a
 * preset was changed on both sides, the versions of both stand beside each other, and whatever mentions one goes by its new number.
 * `heard` hears of each thing that is done.
 */
export function bringIn(
  context: Context,
  incoming: Incoming,
  { items, choices, called }: Wanted,
  heard: () => void = () => undefined,
): Promise<Outcome<Brought>> {
  return transact(context, async (tx, note) => {
    const statement = await statementsOf(tx);
    const filing: Filing = { context, tx, note };
    const at = context.now().toISOString();
    const isRestore = incoming.isWhole && isUntouched(statement);
    const steps: LibraryStep[] = [];
    const problems: string[] = [];
    const begun: Omit<Begun, "numbers"> = {
      filing,
      statement,
      incoming,
      choices,
      items: new Map(items.map((item) => [item.key, item])),
      isRestore,
      at,
      take: async (step, when = at) => {
        await applyStep(tx, step, { at: when, note, context });
        steps.push(step);
      },
      keep: (step) => void steps.push(step),
      problem: (words) => void problems.push(words),
    };
    try {
      return await stepByStep(incoming.count, async (onStep) => {
        const onItem = () => {
          onStep();
          heard();
        };
        const numbers = await numbersOf(begun);
        const folders = await bringFolders({ ...begun, numbers });
        const brought = await bringAll({ ...begun, numbers, ...folders }, onItem);
        if (steps.length === 0 || isRestore) return { ...brought, undo: null, problems };
        const { presets, projects } = brought;
        const what = [
          ...(presets > 0 || projects === 0 ? [counted(presets, "sound")] : []),
          ...(projects > 0 ? [counted(projects, "project")] : []),
        ];
        const undo = await keepEntry(filing, { label: `Bring in ${called}: ${what.join(", ")}`, steps });
        return { ...brought, undo, problems };
      });
    } catch (error) {
      if (error instanceof NotTaken) refuse("refused", `${error.message} Nothing was changed.`);
      throw error;
    }
  });
}
