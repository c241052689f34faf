import type { CardChanges, ChangedCard } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { type FiledIn, movedTo } from "@/core/library/filed-in";
import { type LibraryStep, cardStep } from "@/core/library/step";
import type { Card } from "@/core/presets/preset";
import { ok } from "@/core/result";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import { cardsById } from "../../repositories/preset-lists";
import * as presets from "../../repositories/presets";
import { takingTurns } from "../../turns";
import { type Filed, file, fileAndTell } from "./entry";
import { folderAtPath } from "./folders";
import { checkFolder, presetOf } from "./steps";
import { wordsFor } from "./words";

const newFolderOf = (context: Context, tx: Executor, { newFolder, newFolderIn = null }: CardChanges) =>
  newFolder === undefined ? null : folderAtPath(context, tx, newFolder, newFolderIn);

/** What else becomes of where a sound lies: what is its home from now on does not refer to it as well. */
function filedBy(card: Card, to: Partial<Card>, path: string): Partial<FiledIn> {
  if (to.folder === undefined && to.alsoIn === undefined) return {};
  const folder = to.folder === undefined ? card.folder : to.folder;
  if (folder === null && (to.alsoIn?.length ?? 0) > 0)
    refuse("refused", `“${card.name}” lies in no folder: give it one before others refer to it.`, { path });
  const { alsoIn } = movedTo({ folder: null, alsoIn: [...new Set(to.alsoIn ?? card.alsoIn)] }, folder);
  return to.alsoIn === undefined && card.alsoIn === undefined ? {} : { alsoIn };
}

async function stepsForCards(context: Context, tx: Executor, asked: CardChanges) {
  const { changes } = asked;
  const names: string[] = [];
  const into = await newFolderOf(context, tx, asked);
  const steps: LibraryStep[] = [...(into?.steps ?? [])];
  const turn = takingTurns();
  for (const [at, { id, baseCard, card, binned }] of changes.entries()) {
    await turn();
    const preset = await presetOf(tx, id);
    names.push(preset.card.name);
    if (preset.cardRevision !== baseCard)
      refuse("stale", `The card of “${preset.card.name}” was changed meanwhile.`, {
        path: `changes[${at}].baseCard`,
        detail: { cardRevision: preset.cardRevision, card: preset.card },
      });
    await checkFolder(tx, card?.folder ?? null, `changes[${at}].card.folder`);
    const wanted = { ...card, ...(into && { folder: into.folder }) };
    const given: Partial<Card> = Object.fromEntries(Object.entries(wanted).filter(([, value]) => value !== undefined));
    const to = { ...given, ...filedBy(preset.card, given, `changes[${at}].card.alsoIn`) };
    if (Object.keys(to).length > 0) steps.push(cardStep(id, preset.card, to));
    if (binned !== undefined && binned !== preset.binned)
      steps.push({ kind: "bin", preset: id, from: preset.binned, to: binned });
  }
  return { names, steps };
}

/** Changes the cards of one or many presets, puts them into the bin or takes them out again: all or none. */
export function patchCards(context: Context, asked: CardChanges): Promise<Outcome<readonly ChangedCard[]>> {
  const make = async (tx: Executor) => {
    const { names, steps } = await stepsForCards(context, tx, asked);
    return { steps, label: asked.label ?? wordsFor(steps, names) };
  };
  const ids = asked.changes.map((change) => change.id);
  return fileAndTell(context, make, (tx) => cardsById(tx, ids));
}

/** Cards as they stand, without what is in the bin. */
export const listCards = ({ db }: Context, ids: readonly string[]): Promise<readonly ChangedCard[]> =>
  db.transaction((tx) => cardsById(tx, ids));

/** Puts a preset into the bin. */
export async function deletePreset(context: Context, id: string): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const { binned, mergedInto, card } = await presetOf(tx, id);
    if (binned || mergedInto !== null) refuse("notFound", `There is no preset “${id}” here.`);
    return { label: `Put “${card.name}” into the bin`, steps: [{ kind: "bin", preset: id, from: false, to: true }] };
  });
  return filed.ok ? ok(null) : filed;
}

/** Makes an earlier version the newest again: it is saved once more, as one change that can be taken back. */
export function makeNewest(context: Context, id: string, version: number): Promise<Outcome<PresetRow>> {
  return fileAndTell(
    context,
    async (tx): Promise<Filed> => {
      const { card, version: newest } = await presetOf(tx, id);
      const before = await presets.findVersion(tx, id, version);
      if (!before) refuse("notFound", `“${card.name}” has no version ${version}.`, { path: "version" });
      if (version === newest)
        refuse("refused", `Version ${version} of “${card.name}” is the newest already.`, { path: "version" });
      return {
        label: `Make version ${version} of “${card.name}” the newest`,
        steps: [{ kind: "version", preset: id, version: newest + 1, from: null, to: version }],
      };
    },
    async (tx) => (await presets.findPreset(tx, id)) ?? refuse("notFound", `There is no preset “${id}” here.`),
  );
}

/** Gives a version a name, or takes it away. */
export async function nameVersion(
  context: Context,
  id: string,
  { version, name }: { version: number; name: string | null },
): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const { card } = await presetOf(tx, id);
    const before = (await presets.listVersions(tx, id)).find((v) => v.version === version);
    if (!before) refuse("notFound", `“${card.name}” has no version ${version}.`, { path: "version" });
    return {
      label: name === null ? `Take the name off version ${version}` : `Call version ${version} “${name}”`,
      steps: before.name === name ? [] : [{ kind: "versionName", preset: id, version, from: before.name, to: name }],
    };
  });
  return filed.ok ? ok(null) : filed;
}
