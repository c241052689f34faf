import type { WrapUpRequest, WrapUpUndo, WrappedUp } from "@/contracts/wrap-up";
import { homeOf } from "@/core/library/filed-in";
import { type LibraryStep, cardStep } from "@/core/library/step";
import { counted } from "@/core/names/count";
import { fingerprint } from "@/core/presets/fingerprint";
import { type Content, presetRef } from "@/core/presets/preset";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import type { Step } from "@/core/recall/steps";
import { ok } from "@/core/result";
import { withCompanions } from "@/core/wrap-up/companions";
import { type Find, LEVELS, findsIn } from "@/core/wrap-up/finds";
import { followFind } from "@/core/wrap-up/follow";
import type { Executor } from "../../data/executor";
import { type Outcome, RolledBack, refuse } from "../../failure";
import { rowsById } from "../../repositories/preset-lists";
import * as presets from "../../repositories/presets";
import * as projects from "../../repositories/projects";
import { type WrapUpRecord, forgetWrapUp, keepWrapUp, wrapUpsOf } from "../../repositories/wrap-ups";
import type { Context } from "../../store/context";
import { transact } from "../../store/transact";
import { takingTurns } from "../../turns";
import { type Filing, keepEntry, takeSteps } from "../filing/entry";
import { folderAtPath } from "../filing/folders";
import { walkIn } from "../filing/history";
import { readOnly } from "../filing/steps";
import { checkNew, following } from "../library";
import { wordsOfNone } from "../projects/body";
import { type Committing, commitIn, refuseStale } from "../projects/commit";
import { walked } from "../projects/walk";

type Asked = WrapUpRequest["file"][number];

/** What of a project is filed, of what was found at a revision of it. */
export interface Share {
  readonly project: string;
  readonly baseRevision: number;
  readonly file: readonly Asked[];
  /** The same sounds as others that are filed, which these go by then: which of them each is like. */
  readonly alike?: readonly { readonly key: string; readonly project: string; readonly like: string }[];
  /** What was passed over, by its fingerprint. */
  readonly left: readonly string[];
}

/** Into which folder all goes that is new. */
type Into = Pick<WrapUpRequest, "newFolder" | "newFolderIn">;

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
  /** What is filed as versions in this go, by its preset. */
  readonly versions: Map<string, Kept[]>;
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

/** The next version of a preset; behind those of it that are filed in the same go. What sounds as one of these is that. */
async function keepVersion(
  { filing: { tx }, versions }: Filling,
  find: Find,
  { preset: id, baseVersion }: Extract<Asked["as"], { preset: string }>,
  path: string,
): Promise<Kept> {
  const preset = (await presets.findPreset(tx, id)) ?? refuse("notFound", `There is no preset “${id}” here.`, { path });
  if (preset.pack !== null) refuse("refused", readOnly(preset), { path });
  const { card } = preset;
  if (preset.version !== baseVersion)
    refuse("stale", `“${card.name}” has version ${preset.version} by now.`, {
      path,
      detail: { version: preset.version },
    });
  const content = following(preset.content, find.content);
  const before = versions.get(id) ?? [];
  const same = before.find((kept) => fingerprint(kept.content) === fingerprint(content));
  if (same) return { ...same, find, steps: [] };
  const version = preset.version + before.length + 1;
  const step: LibraryStep = { kind: "content", preset: id, version, from: null, to: content };
  const kept: Kept = { find, preset: id, version, name: card.name, content, steps: [step] };
  versions.set(id, [...before, kept]);
  return kept;
}

/** The steps by which a project goes by what was kept of it. */
function followAll(project: Project, kept: readonly Kept[], mint: () => string): readonly Step[] {
  const steps: Step[] = [];
  let now = project;
  // The larger things last: what came along in a set goes by that, too.
  const bySize = kept.toSorted((a, b) => LEVELS.indexOf(a.find.level) - LEVELS.indexOf(b.find.level));
  for (const { find, preset, version, name, content } of bySize) {
    const from = presetRef({ id: preset, version, card: { name } });
    const more = followFind(now, find, content, { from, mint });
    const applied = applySteps(now, more);
    if (!applied.ok) throw new Error(`${find.key} cannot go by ${name}: ${applied.error.reason}`);
    steps.push(...more);
    now = applied.value;
  }
  return steps;
}

const GONE = "This is not in the project any more.";

/** A share with what is in its project. */
interface Opened {
  readonly share: Share;
  readonly record: projects.ProjectRecord;
  readonly finds: ReadonlyMap<string, Find>;
}

async function openShare(tx: Executor, share: Share): Promise<Opened> {
  const record = await projects.findProject(tx, share.project);
  if (!record || record.draft) return refuse("notFound", wordsOfNone(share.project));
  if (record.revision !== share.baseRevision) refuseStale(record, share.baseRevision);
  const finds = new Map(findsIn(record.project).map((find) => [find.key, find]));
  return { share, record, finds };
}

async function keepAll(filling: Filling, { share, record, finds }: Opened): Promise<readonly Kept[]> {
  const turn = takingTurns();
  const kept: Kept[] = [];
  for (const [at, { key, as, companions = [] }] of share.file.entries()) {
    const path = `file[${at}]`;
    const found = finds.get(key) ?? refuse("refused", GONE, { path: `${path}.key` });
    const find = withCompanions(record.project, found, companions);
    kept.push(
      "card" in as
        ? await keepNew(filling, find, as.card, `${path}.as`)
        : await keepVersion(filling, find, as, `${path}.as`),
    );
    await turn();
  }
  return kept;
}

/** What of a project goes by what is filed of others, since it sounds the same. */
function keptAlike({ share, finds }: Opened, keptAt: ReadonlyMap<string, Kept>): readonly Kept[] {
  return (share.alike ?? []).map(({ key, project, like }) => {
    const find = finds.get(key) ?? refuse("refused", GONE);
    const kept = keptAt.get(`${project} ${like}`) ?? refuse("refused", "What this is like is not filed.");
    return { ...kept, find, steps: [] };
  });
}

/** What came of filing. */
export interface FiledTogether {
  readonly presets: WrappedUp["presets"];
  readonly revisions: readonly { readonly project: string; readonly revision: number }[];
  readonly undo: WrapUpUndo | null;
}

interface Told {
  /** "Wrap up “Salt Lanterns”". */
  readonly label: string;
  readonly into: Into;
}

/** Each project goes by what was kept of it, and of others that sound the same, and remembers its wrap-up. */
async function goByAll(
  filing: Committing,
  opened: readonly Opened[],
  kept: readonly (readonly Kept[])[],
  { label, log, at }: { readonly label: string; readonly log: number; readonly at: string },
): Promise<FiledTogether["revisions"]> {
  const turn = takingTurns();
  const keptAt = new Map(
    opened.flatMap(({ share }, n) => kept[n]!.map((one) => [`${share.project} ${one.find.key}`, one])),
  );
  const revisions: { project: string; revision: number }[] = [];
  for (const [n, one] of opened.entries()) {
    const { share, record } = one;
    const steps = followAll(record.project, [...kept[n]!, ...keptAlike(one, keptAt)], filing.context.mint);
    const made = () => Promise.resolve({ label, steps });
    const next = steps.length === 0 ? null : await commitIn(filing, share.project, made);
    await remember(filing.tx, share, { at, undo: { log, revision: next?.revision ?? null } });
    revisions.push({ project: share.project, revision: next?.revision ?? record.revision });
    await turn();
  }
  return revisions;
}

const remember = (tx: Executor, { project, left }: Share, done: Pick<WrapUpRecord, "at" | "undo">): Promise<void> =>
  keepWrapUp(tx, project, { ...done, passedOver: [...new Set(left)] });

async function openShares(tx: Executor, shares: readonly Share[]): Promise<readonly Opened[]> {
  const turn = takingTurns();
  const opened: Opened[] = [];
  for (const share of shares) {
    opened.push(await openShare(tx, share));
    await turn();
  }
  return opened;
}

/** Files what was found in projects, as one step of the library and one of each project, all or nothing. */
export function fileTogether(
  context: Context,
  shares: readonly Share[],
  { label: what, into: { newFolder, newFolderIn = null } }: Told,
): Promise<Outcome<FiledTogether>> {
  return transact(context, async (tx, note) => {
    const opened = await openShares(tx, shares);
    const at = context.now().toISOString();
    for (const { project } of shares) note({ kind: "project", id: project });
    if (shares.every(({ file }) => file.length === 0)) {
      for (const share of shares) await remember(tx, share, { at, undo: null });
      const revisions = opened.map(({ share, record }) => ({ project: share.project, revision: record.revision }));
      return { presets: [], revisions, undo: null };
    }
    const filing = { context, tx, note };
    const { folder: into, steps: making } =
      newFolder === undefined ? { folder: null, steps: [] } : await folderAtPath(context, tx, newFolder, newFolderIn);
    await takeSteps(filing, making);
    const filling: Filling = { filing, at, into, versions: new Map() };
    const kept: (readonly Kept[])[] = [];
    for (const one of opened) kept.push(await keepAll(filling, one));
    const all = kept.flat();
    const steps = all.flatMap((one) => one.steps);
    await takeSteps(filing, steps);
    const ids = [...new Set(all.map(({ preset }) => preset))];
    const label = `${what}: ${counted(ids.length, "sound")}`;
    const log = await keepEntry(filing, { label, steps: [...making, ...steps] });
    const revisions = await goByAll(filing, opened, kept, { label, log, at });
    const before = new Map(shares.map(({ project, baseRevision }) => [project, baseRevision]));
    const [first] = revisions;
    const changed = first && first.revision !== before.get(first.project) ? first.revision : null;
    return { presets: [...(await rowsById(tx, ids))], revisions, undo: { log, revision: changed } };
  });
}

/** Files what was found in a project, as one step of the library and one of the project, all or nothing. */
export async function wrapUp(context: Context, id: string, request: WrapUpRequest): Promise<Outcome<WrappedUp>> {
  const { baseRevision, file, left, ...into } = request;
  const name = (await projects.findProject(context.db, id))?.project.name ?? id;
  const filed = await fileTogether(context, [{ project: id, baseRevision, file, left }], {
    label: `Wrap up “${name}”`,
    into,
  });
  if (!filed.ok) return filed;
  const { presets: rows, revisions, undo } = filed.value;
  return ok({ presets: rows, revision: revisions[0]?.revision ?? baseRevision, undo });
}

/**
 * Takes a wrap-up back: each project that it was of goes by what it went by, and what was filed is in no list. All of it, or nothing.
 * `id`: one of the projects.
 */
export function undoWrapUp(
  context: Context,
  id: string,
  { log, revision }: WrapUpUndo,
): Promise<Outcome<{ ok: true }>> {
  return transact(context, async (tx, note) => {
    const filing = { context, tx, note };
    const known = await wrapUpsOf(tx, log);
    const shares = known.some(({ project }) => project === id) ? known : [{ project: id, revision }];
    const turn = takingTurns();
    // First, so that nothing uses the versions any more.
    for (const share of shares) {
      const { project, revision: only } = share;
      if (only !== null)
        await commitIn(filing, project, (record, within) => walked(record, within, { way: "undo", only }));
      await turn();
    }
    await walkIn(filing, { direction: "undo", only: log });
    for (const { project } of shares) {
      await forgetWrapUp(tx, project, log);
      note({ kind: "project", id: project });
    }
    return { ok: true as const };
  });
}
