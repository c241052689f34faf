import { asStrip } from "@/core/presets/as-strip";
import type { DraftList, NewDraft, ProjectBody } from "@/contracts/projects";
import { processorName } from "@/core/chains/chain";
import { completeProcessor } from "@/core/chains/complete";
import { processorsOf } from "@/core/chains/tree";
import { type Content, isStrips, withFrom } from "@/core/presets/preset";
import { referenceOf, soundingChain } from "@/core/presets/standing";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import { findModel } from "@/core/processors/models";
import { type Project, findStrip } from "@/core/projects/project";
import { saveStrip } from "@/core/presets/save";
import { PROJECT_SCHEMA } from "@/core/projects/schema";
import { ok } from "@/core/result";
import { type SavedStrip, type Strip, createStrip } from "@/core/strips/strip";
import { layerOf, layersOf } from "@/core/strips/parts/source";
import type { Context } from "../store/context";
import { inTransaction } from "../store/transaction";
import { type Outcome, failure } from "../failure";
import { findFiled, findVersion } from "../repositories/presets";
import * as projects from "../repositories/projects";
import { bodyOf } from "./projects/body";
import { getRevision } from "./projects/history";
import { getProject } from "./projects/read";

const DRAFT_TEMPO = 120;

/** The one strip of a draft: what the preset holds, on a strip with nothing else set. */
function draftStrip(content: Content | null, name: string): Strip {
  const { kind, ...parts } = (content ? asStrip(content) : null) ?? { kind: "audio" as const };
  const blank = createStrip("strip", kind, { name }, null);
  const given = Object.fromEntries(Object.entries(parts).filter(([, part]) => part !== undefined)) as Partial<Strip>;
  return { ...blank, ...given, kind, look: given.look ?? { name } };
}

/** What a draft begins with: a version of a preset, or nothing yet. */
interface DraftSource {
  readonly preset: string | null;
  readonly version: number | null;
  readonly name: string;
  readonly content: Content | null;
  /** Where it comes from, as what is saved of it says. */
  readonly origin?: Pick<Project, "artist" | "client" | "song" | "tempo" | "sampleRate">;
}

const NOTHING_YET: DraftSource = { preset: null, version: null, name: "New sound", content: null };

/** A strip of a project as it was after one of its changes: what is done to it is done to nothing of that project. */
async function momentDraft(
  context: Context,
  { project: id, revision, strip: wanted, name }: NonNullable<NewDraft["moment"]>,
): Promise<Outcome<DraftSource>> {
  const then = await getRevision(context, id, revision);
  if (!then.ok) return then;
  const { project } = then.value;
  const strip = findStrip(project, wanted);
  if (!strip || strip.kind === "folder")
    return failure("notFound", `“${project.name}” had no strip “${wanted}” then that sounds.`, {
      path: "moment.strip",
    });
  const { artist, client, song, tempo, sampleRate } = project;
  const origin = { artist, client, song: song === "" ? project.name : song, tempo, sampleRate };
  const content = saveStrip(project, strip, ["source", "inserts", "level", "pan", "look"]);
  return ok({ preset: null, version: null, name, content, origin });
}

/** A strip with one instrument, as it starts. */
function instrumentDraft(modelId: string, sample: string | undefined): Outcome<DraftSource> {
  const model = findModel(modelId);
  if (model?.family !== "instrument")
    return failure("refused", `No instrument is called “${modelId}” here.`, { path: "instrument" });
  const layer = layerOf(
    completeProcessor({
      type: "processor",
      key: "instrument1",
      model: model.id,
      enabled: true,
      values: {},
      ...(sample ? { state: { hash: sample } } : {}),
    }),
  );
  const strip: SavedStrip = { kind: "instrument", source: { type: "layers", channels: "stereo", layers: [layer] } };
  const content: Content = { kind: "strip", schema: CONTENT_SCHEMA, strip };
  return ok({ preset: null, version: null, name: `New ${model.name.toLowerCase()}`, content });
}

async function findDraftSource(
  context: Context,
  { preset: id, version: wanted, instrument, sample, moment }: NewDraft,
): Promise<Outcome<DraftSource>> {
  const { db } = context;
  if (id === null && moment !== undefined) return momentDraft(context, moment);
  if (id === null && instrument !== undefined) return instrumentDraft(instrument, sample);
  if (id === null) return ok(NOTHING_YET);
  const preset = await findFiled(db, id);
  if (!preset) return failure("notFound", `There is no preset “${id}” here.`, { path: "preset" });
  const version = wanted ?? preset.version;
  const { name } = preset.card;
  const saved = await findVersion(db, id, version);
  if (!saved) return failure("notFound", `“${name}” has no version ${version}.`, { path: "version" });
  if (isStrips(saved.content))
    return failure("refused", `“${name}” holds several strips. Apply it to a project, and open one of them there.`, {
      path: "preset",
    });
  return ok({ preset: id, version, name, content: withFrom(saved.content, { preset: id, version, name }) });
}

/**
 * Opens a preset on the bench, or nothing yet. A draft that was left is taken up again: nothing that was turned is lost.
 */
export async function openDraft(context: Context, request: NewDraft): Promise<Outcome<ProjectBody>> {
  const source = await findDraftSource(context, request);
  if (!source.ok) return source;
  const { preset, version, name, content, origin } = source.value;
  // A sound that was just dropped is always a new one.
  const standing = request.sample ? null : await findStanding(context, source.value, request.fresh === true);
  if (standing) return ok(await bodyOf(context.db, standing));
  const project: Project = {
    schema: PROJECT_SCHEMA,
    id: context.mint(),
    name,
    artist: "",
    client: "",
    song: "",
    tempo: request.tempo ?? DRAFT_TEMPO,
    meter: { beats: 4, unit: 4 },
    key: "",
    sampleRate: 48_000,
    ...origin,
    strips: [draftStrip(content, name)],
  };
  await inTransaction(context, async (tx, note) => {
    await projects.insertProject(tx, { project, at: context.now().toISOString(), draft: { preset, version } });
    note({ kind: "project", id: project.id });
  });
  return getProject(context, project.id);
}

/** A draft that was left, the last changed first; one that nothing was done to where a fresh one is asked for. */
async function findStanding(
  { db }: Context,
  source: DraftSource,
  fresh: boolean,
): Promise<projects.ProjectRecord | null> {
  for (const id of await projects.findDrafts(db, source.preset, source.version)) {
    const record = await projects.findReadable(db, id);
    if (!record || (fresh && record.revision > 0)) continue;
    if (isOf(source, record.project)) return record;
  }
  return null;
}

/** Whether a draft is one of what is opened. A strip as it was once is none that was begun from nothing, and another than of any other moment. */
function isOf(source: DraftSource, draft: Project): boolean {
  const [strip] = draft.strips;
  if (!strip || !isSameBeginning(strip, draftStrip(source.content, ""))) return false;
  if (source.origin !== undefined) return draft.song !== "" && draft.name === source.name;
  return draft.song === "" && isStill(source, strip);
}

/** Whether a draft still goes by what it was opened from: one that was saved since goes by what that made. */
function isStill({ preset, version }: Pick<DraftSource, "preset" | "version">, strip: Strip): boolean {
  const reference = referenceOf(strip);
  return reference === null || (reference.preset === preset && reference.version === version);
}

/** An instrument is taken up again where it is the one that is asked for. */
const isSameBeginning = (standing: Strip, wanted: Strip): boolean =>
  standing.kind === wanted.kind && layersOf(standing)[0]?.instrument.model === layersOf(wanted)[0]?.instrument.model;

export async function dropDraft(context: Context, id: string): Promise<Outcome<null>> {
  const dropped = await inTransaction(context, async (tx, note) => {
    const gone = await projects.deleteDraft(tx, id);
    if (gone) note({ kind: "project", id });
    return gone;
  });
  return dropped ? ok(null) : failure("notFound", `There is no draft “${id}” here.`);
}

/** As many as a menu takes. */
const MOST_LISTED = 12;

/** What was begun from nothing and is not saved: the ways back to it. */
export async function listDrafts({ db }: Context): Promise<DraftList["drafts"]> {
  const found: DraftList["drafts"] = [];
  for (const { id, changedAt } of await projects.listChangedDrafts(db)) {
    const strip = (await projects.findReadable(db, id))?.project.strips[0];
    const plugins = strip ? processorsOf(soundingChain(strip)).map(processorName) : [];
    if (plugins.length > 0) found.push({ id, changedAt, plugins });
    if (found.length === MOST_LISTED) break;
  }
  return found;
}
