import equal from "fast-deep-equal";
import type { FiledPreset, FiledVersion } from "@/core/archive/documents";
import { type Filing, type JoinedPreset, type OwnPreset, filingOf, joinPreset } from "@/core/archive/join-preset";
import { renumberVersions } from "@/core/archive/renumber";
import { foldersOf } from "@/core/library/filed-in";
import { type LibraryStep, type SideVersion, cardStep } from "@/core/library/step";
import { besideOf } from "@/core/packs/pack";
import type { Card, Content } from "@/core/presets/preset";
import { findOwn, insertFiled, setFiled } from "../../repositories/filed-presets";
import { type FiledCard, findCard, findPreset } from "../../repositories/presets";
import { following } from "../library";
import { type Bringing, chosen } from "./bringing";

type Side = LibraryStep & { readonly kind: "versions" };

/** The step by which the versions of both sides stand together. */
function versionsStep(own: OwnPreset, theirs: readonly FiledVersion[], { versions }: JoinedPreset): Side {
  const from = own.versions.map(({ version, basedOn }): SideVersion => {
    const joined = versions.find((one) => one.own === version)!;
    return { was: joined.version, basedOn };
  });
  const to = versions.map(({ own: here, theirs: there, basedOn }): SideVersion => {
    if (here !== null) return { was: here, basedOn };
    const { savedAt, name, content } = theirs[there! - 1]!;
    return { was: null, savedAt, name, content, basedOn };
  });
  return { kind: "versions", preset: own.id, from, to };
}

/** Brings in one sound; whether anything came of it. */
export async function bringPreset(bringing: Bringing, given: FiledPreset): Promise<boolean> {
  const { numbers, statement, folderOf } = bringing;
  const choice = bringing.isRestore ? "take" : chosen(bringing, `preset:${given.id}`);
  // Where there is nothing to choose, when it was filed and used last is still taken in.
  if (choice === "leave" && !isSettled(bringing, given.id)) return false;
  const preset = renumbered(given, numbers);
  if (choice === "asVersion") return asVersion(bringing, preset);
  const filing = filingOf(preset, folderOf);
  const own = findOwn(statement, preset.id);
  return own ? joinHere(bringing, { own, preset, filing }) : insertHere(bringing, preset, filing);
}

const isSettled = ({ items }: Bringing, id: string): boolean =>
  ["same", "older"].includes(items.get(`preset:${id}`)?.standing ?? "");

const renumbered = (given: FiledPreset, numbers: Bringing["numbers"]): FiledPreset => ({
  ...given,
  card: renumberVersions(given.card, numbers),
  versions: renumberVersions(given.versions, numbers),
});

async function insertHere(
  { filing: { tx, note }, at, take, isNewFolder, isRestore }: Bringing,
  preset: FiledPreset,
  { card, isBinned }: Filing,
): Promise<boolean> {
  if (isRestore) {
    await insertFiled(tx, { ...preset, card }, isBinned ? preset.binnedAt : null);
    note({ kind: "preset", id: preset.id });
    return true;
  }
  const binnedAt = isBinned ? preset.binnedAt! : at;
  const isLaidLater = foldersOf(card).some(isNewFolder);
  const { alsoIn = null, ...alone } = card;
  const begun: Card = isLaidLater ? { ...alone, folder: null } : card;
  await insertFiled(tx, { ...preset, card: begun }, binnedAt);
  if (!isBinned) await take({ kind: "bin", preset: preset.id, from: true, to: false }, preset.filedAt);
  // By a step, so that an undo leaves the folder empty.
  const laid = { folder: card.folder, ...(alsoIn ? { alsoIn } : {}) };
  if (isLaidLater) await take(cardStep(preset.id, begun, laid), preset.filedAt);
  note({ kind: "preset", id: preset.id });
  return true;
}

interface Meeting {
  readonly own: OwnPreset;
  readonly preset: FiledPreset;
  readonly filing: Filing;
}

async function joinHere(bringing: Bringing, { own, preset, filing }: Meeting): Promise<boolean> {
  const { tx, note } = bringing.filing;
  const joined = joinPreset(own, preset, filing);
  const hasMore = joined.versions.some((one) => one.own === null);
  if (hasMore) await bringing.take(versionsStep(own, preset.versions, joined));
  // One that was filed here later is filed as it is there where that was asked for: it is filed so now.
  const isAsked = joined.filed === "older" && chosen(bringing, `preset:${own.id}`) === "take" && !hasMore;
  const isFiledAnew = joined.filed === "newer" || isAsked;
  const later = preset.filedAt > own.filedAt ? preset.filedAt : own.filedAt;
  const filedAt = isAsked ? bringing.at : later;
  if (isFiledAnew) await fileAsThere(bringing, { own, preset: { ...preset, filedAt }, filing });
  await setFiled(tx, own.id, { ...preset, filedAt });
  note({ kind: "preset", id: own.id });
  return hasMore || isFiledAnew;
}

/** Files a preset as it is filed there; of one that belongs to a pack only what the person sets beside it. */
async function fileAsThere({ take, statement }: Bringing, { own, preset, filing }: Meeting): Promise<void> {
  const { id, pack } = own;
  const when = preset.filedAt;
  const to = changedFields(own.card, filing.card, pack !== null);
  // What was put into another is filed where it stands by itself.
  if (own.mergedInto !== null && filing.mergedInto !== own.mergedInto)
    await take({ kind: "merge", preset: id, from: own.mergedInto, to: null }, when);
  if (Object.keys(to).length > 0) await take(cardStep(id, own.card, to), when);
  if (pack !== null) return;
  if (own.isBinned !== filing.isBinned && filing.mergedInto === null)
    await take({ kind: "bin", preset: id, from: own.isBinned, to: filing.isBinned }, when);
  const standing = findOwn(statement, id)!;
  for (const { version, savedAt } of standing.versions) {
    const [from, name] = [standing.versionNames[savedAt] ?? null, filing.versionNames[savedAt] ?? null];
    const isTheirs = preset.versions.some((one) => one.savedAt === savedAt);
    if (isTheirs && from !== name) await take({ kind: "versionName", preset: id, version, from, to: name }, when);
  }
}

/** The fields in which their card is another; one that they do not have is taken out. */
function changedFields(own: Card, theirs: Card, isOfPack: boolean): Parameters<typeof cardStep>[2] {
  const names = [...new Set([...Object.keys(own), ...Object.keys(theirs)])] as (keyof Card)[];
  const fields = Object.fromEntries(
    names.filter((name) => !equal(own[name], theirs[name])).map((name) => [name, theirs[name] ?? null]),
  );
  return isOfPack ? besideOf(fields) : fields;
}

/** What was put into another sound there is put into it here, where that is here and can take it. */
export async function linkMerged(bringing: Bringing, { id, mergedInto, filedAt }: FiledPreset): Promise<void> {
  const { statement, take, filing } = bringing;
  if (!bringing.isRestore && chosen(bringing, `preset:${id}`) !== "take") return;
  const own = findOwn(statement, id);
  const host = mergedInto === null ? null : await findCard(filing.tx, mergedInto);
  const isFree = own !== null && own.mergedInto === null && own.filedAt <= filedAt;
  if (!isFree || !host || !canTake(host, (await findCard(filing.tx, id))!)) return;
  if (own.isBinned) await take({ kind: "bin", preset: id, from: true, to: false }, filedAt);
  await take({ kind: "merge", preset: id, from: null, to: host.id }, filedAt);
}

/** Whether one stands by itself and takes another of its kind. */
const canTake = (host: FiledCard, { id, kind }: FiledCard): boolean =>
  !host.binned && host.mergedInto === null && host.pack === null && host.kind === kind && host.id !== id;

/** The newest version there is the next one of the sound that is named like it here. */
async function asVersion(bringing: Bringing, preset: FiledPreset): Promise<boolean> {
  const { filing, items, take, at, problem } = bringing;
  const like = items.get(`preset:${preset.id}`)?.like;
  const host = like && (await findPreset(filing.tx, like.id));
  const content: Content = preset.versions.at(-1)!.content;
  if (!host || host.pack !== null || host.kind !== content.kind) {
    problem(`“${preset.card.name}”: the sound of its name is not here any more.`);
    return false;
  }
  const to = following(host.content, content);
  await take({ kind: "content", preset: host.id, version: host.version + 1, from: null, to }, at);
  return true;
}
