import type { WrapUpRequest, WrapUpUndo, WrappedUp } from "@/contracts/wrap-up";
import { homeOf } from "@/core/library/filed-in";
import { type LibraryStep, cardStep } from "@/core/library/step";
import { counted } from "@/core/names/count";
import { type Content, presetRef } from "@/core/presets/preset";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import type { Step } from "@/core/recall/steps";
import { type Find, findsIn } from "@/core/wrap-up/finds";
import { followFind } from "@/core/wrap-up/follow";
import { type Outcome, RolledBack, refuse } from "../../failure";
import { rowsById } from "../../repositories/preset-lists";
import * as presets from "../../repositories/presets";
import * as projects from "../../repositories/projects";
import { forgetWrapUp, keepWrapUp } from "../../repositories/wrap-ups";
import type { Context } from "../../store/context";
import { transact } from "../../store/transact";
import { takingTurns } from "../../turns";
import { type Filing, keepEntry, takeSteps } from "../filing/entry";
import { folderAtPath } from "../filing/folders";
import { walkIn } from "../filing/history";
import { readOnly } from "../filing/steps";
import { checkNew, following } from "../library";
import { wordsOfNone } from "../projects/body";
import { commitIn, refuseStale } from "../projects/commit";
import { walked } from "../projects/walk";

type Asked = WrapUpRequest["file"][number];

/** What was found, as it is kept: by which preset, and what that holds. */
interface Kept {
  readonly find: Find;
  readonly preset: string;
  readonly version: number;
  readonly name: string;
  readonly content: Content;
  readonly steps: readonly LibraryStep[];
}

interface Filling {
  readonly filing: Filing & { readonly context: Context };
  readonly at: string;
  /** The folder that was made, or found, for all that is new. */
  readonly into: string | null;
}

/**
 * A preset of its own: it is there at once as one that lies in the bin, outside of a folder that is made with it, and is taken out and put
 * there by steps that can be taken back.
 */
async function keepNew(
  { filing: { context, tx }, at, into }: Filling,
  find: Find,
  card: Extract<Asked["as"], { card: unknown }>["card"],
  path: string,
): Promise<Kept> {
  const checked = await checkNew(tx, { kind: find.content.kind, content: find.content, card }, path);
  if (!checked.ok) throw new RolledBack(checked.error);
  const id = context.mint();
  const { alsoIn: _, ...alone } = card;
  const begun = into === null ? card : { ...alone, folder: null };
  await presets.insertPreset(tx, { id, content: checked.value, card: begun, at });
  await presets.setBinned(tx, id, true, at);
  const steps: readonly LibraryStep[] = [
    { kind: "bin", preset: id, from: true, to: false },
    ...(into === null ? [] : [cardStep(id, begun, homeOf(card, into))]),
  ];
  return { find, preset: id, version: 1, name: card.name, content: checked.value, steps };
}

/** The next version of a preset. */
async function keepVersion(
  { filing: { tx } }: Filling,
  find: Find,
  { preset: id, baseVersion }: Extract<Asked["as"], { preset: string }>,
  path: string,
): Promise<Kept> {
  const preset = (await presets.findPreset(tx, id)) ?? refuse("notFound", `There is no preset “${id}” here.`, { path });
  if (preset.pack !== null) refuse("refused", readOnly(preset), { path });
  const { version, card } = preset;
  if (version !== baseVersion)
    refuse("stale", `“${card.name}” has version ${version} by now.`, { path, detail: { version } });
  const content = following(preset.content, find.content);
  const step: LibraryStep = { kind: "content", preset: id, version: version + 1, from: null, to: content };
  return { find, preset: id, version: version + 1, name: card.name, content, steps: [step] };
}

/** The steps by which a project goes by what was kept of it. */
function followAll(project: Project, kept: readonly Kept[], mint: () => string): readonly Step[] {
  const steps: Step[] = [];
  let now = project;
  // The larger things last: what came along in a set goes by that, too.
  for (const { find, preset, version, name, content } of kept) {
    const from = presetRef({ id: preset, version, card: { name } });
    const more = followFind(now, find, content, { from, mint });
    const applied = applySteps(now, more);
    if (!applied.ok) throw new Error(`${find.key} cannot go by ${name}: ${applied.error.reason}`);
    steps.push(...more);
    now = applied.value;
  }
  return steps;
}

async function keepAll(filling: Filling, finds: readonly Find[], asked: readonly Asked[]): Promise<readonly Kept[]> {
  const byKey = new Map(finds.map((find) => [find.key, find]));
  const turn = takingTurns();
  const kept: Kept[] = [];
  for (const [at, { key, as }] of asked.entries()) {
    const path = `file[${at}]`;
    const find = byKey.get(key) ?? refuse("refused", "This is not in the project any more.", { path: `${path}.key` });
    kept.push(
      "card" in as
        ? await keepNew(filling, find, as.card, `${path}.as`)
        : await keepVersion(filling, find, as, `${path}.as`),
    );
    await turn();
  }
  return kept;
}

/** Files what was found in a project, as one step of the library and one of the project, all or nothing. */
export function wrapUp(context: Context, id: string, request: WrapUpRequest): Promise<Outcome<WrappedUp>> {
  const { baseRevision, file, left, newFolder, newFolderIn = null } = request;
  return transact(context, async (tx, note) => {
    const record = await projects.findProject(tx, id);
    if (!record || record.draft) return refuse("notFound", wordsOfNone(id));
    if (record.revision !== baseRevision) refuseStale(record, baseRevision);
    const at = context.now().toISOString();
    const passedOver = [...new Set(left)];
    note({ kind: "project", id });
    if (file.length === 0) {
      await keepWrapUp(tx, id, { at, passedOver, undo: null });
      return { presets: [], revision: record.revision, undo: null };
    }
    const filing = { context, tx, note };
    const { folder: into, steps: making } =
      newFolder === undefined ? { folder: null, steps: [] } : await folderAtPath(context, tx, newFolder, newFolderIn);
    await takeSteps(filing, making);
    const kept = await keepAll({ filing, at, into }, findsIn(record.project), file);
    const steps = kept.flatMap((one) => one.steps);
    await takeSteps(filing, steps);
    const label = `Wrap up “${record.project.name}”: ${counted(kept.length, "sound")}`;
    const log = await keepEntry(filing, { label, steps: [...making, ...steps] });
    const follow = followAll(record.project, kept, context.mint);
    const next =
      follow.length === 0 ? null : await commitIn(filing, id, () => Promise.resolve({ label, steps: follow }));
    const ids = kept.map(({ preset }) => preset);
    const undo = { log, revision: next?.revision ?? null };
    await keepWrapUp(tx, id, { at, passedOver, undo });
    return { presets: [...(await rowsById(tx, ids))], revision: next?.revision ?? record.revision, undo };
  });
}

/** Takes a wrap-up back: the project goes by what it went by, and what was filed is in no list. All of it, or nothing. */
export function undoWrapUp(
  context: Context,
  id: string,
  { log, revision }: WrapUpUndo,
): Promise<Outcome<{ ok: true }>> {
  return transact(context, async (tx, note) => {
    const filing = { context, tx, note };
    // First, so that nothing uses the versions any more.
    if (revision !== null)
      await commitIn(filing, id, (record, within) => walked(record, within, { way: "undo", only: revision }));
    await walkIn(filing, { direction: "undo", only: log });
    await forgetWrapUp(tx, id, log);
    note({ kind: "project", id });
    return { ok: true as const };
  });
}
