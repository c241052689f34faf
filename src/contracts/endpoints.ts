import { z } from "zod";
import { CardSchema, ContentSchema } from "@/core/presets/schema";
import { ProjectSchema } from "@/core/projects/schema";
import { INSERT_MODES } from "@/core/recall/plan";
import { StepSchema } from "@/core/recall/step-schema";
import { SettingsSchema } from "@/core/settings/schema";
import { PARTS } from "@/core/strips/strip";
import {
  BinnedRowSchema,
  FolderSchema,
  HistorySchema,
  MediaRowSchema,
  MergedRowSchema,
  PresetRowSchema,
  ProjectRowSchema,
  RevisionRowSchema,
  UseSchema,
  VersionRowSchema,
} from "./records";

const Id = z.string().min(1).max(80);
const PresetKindSchema = z.enum(["plugin", "chain", "strip", "set", "mix"]);

export const HealthSchema = z.strictObject({
  ok: z.literal(true),
  version: z.string(),
  commit: z.string().optional(),
  schema: z.int(),
  counts: z.strictObject({ presets: z.int(), projects: z.int(), models: z.int() }),
});

export const PresetQuerySchema = z.strictObject({
  /** In the language of the search field; see docs/finding.md. */
  q: z.string().max(20_000).optional(),
  /** Filters beside the field, in the same language. */
  only: z.string().max(20_000).optional(),
  kind: PresetKindSchema.optional(),
  /** Plugin presets of this model only. */
  model: z.string().min(1).max(80).optional(),
  folder: Id.optional(),
  tag: z.string().max(60).optional(),
  sort: z.enum(["used", "name", "saved"]).optional(),
  after: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(500).optional(),
});

export const PresetDetailQuerySchema = z.strictObject({ version: z.coerce.number().int().min(1).optional() });
export const RevisionNumberSchema = z.coerce.number().int().min(0);

export const PresetPageSchema = z.strictObject({
  items: z.array(PresetRowSchema),
  total: z.int(),
  next: z.string().nullable(),
  /** For each field, its values among all that were found, the most frequent first. */
  facets: z.record(z.string(), z.array(z.strictObject({ value: z.string(), n: z.int() }))),
  /** What of the search was not understood; its words were looked for. */
  unclear: z.array(z.string()),
  /** Words that nothing begins with, and what they were read as. */
  corrected: z.array(z.strictObject({ typed: z.string(), read: z.string() })),
});

export const NewPresetSchema = z.strictObject({
  preset: z.strictObject({ kind: PresetKindSchema, content: ContentSchema, card: CardSchema }),
});
export const PresetBodySchema = z.strictObject({ preset: PresetRowSchema });
export const PresetDetailSchema = z.strictObject({
  preset: PresetRowSchema,
  versions: z.array(VersionRowSchema),
  uses: z.array(UseSchema),
  /** Near copies that were put into it; their versions are there under their own ids. */
  merged: z.array(MergedRowSchema),
});
/** `within`: how far apart two may be, 0 to 1 along the rulers of their values. */
export const NearCopiesQuerySchema = z.strictObject({ within: z.coerce.number().min(0).max(1).optional() });
export const NearCopiesSchema = z.strictObject({
  groups: z.array(z.strictObject({ distance: z.number(), presets: z.array(PresetRowSchema) })),
});
export const MergeSchema = z.strictObject({ keep: Id, others: z.array(Id).min(1).max(500) });
export const NewVersionSchema = z.strictObject({ baseVersion: z.int().min(1), content: ContentSchema });
export const CardChangesSchema = z.strictObject({
  changes: z
    .array(
      z.strictObject({
        id: Id,
        baseCard: z.int().min(1),
        card: CardSchema.partial().optional(),
        /** Into the bin, or out of it. */
        binned: z.boolean().optional(),
      }),
    )
    .min(1)
    .max(5000),
  /** What undo calls it. */
  label: z.string().trim().min(1).max(300).optional(),
});
export const VersionNameSchema = z.strictObject({
  version: z.int().min(1),
  name: z.string().trim().min(1).max(120).nullable(),
});
export const BinSchema = z.strictObject({ items: z.array(BinnedRowSchema) });
export const EmptyBinSchema = z.strictObject({ ids: z.array(Id).max(100_000).nullable() });
export const GoneSchema = z.strictObject({ gone: z.int() });
export const PresetListSchema = z.strictObject({ presets: z.array(PresetRowSchema) });

export const FolderListSchema = z.strictObject({ folders: z.array(FolderSchema) });
export const NewFolderSchema = z.strictObject({ name: z.string().trim().min(1).max(120), parent: Id.nullable() });
export const FolderChangeSchema = z.strictObject({
  name: z.string().trim().min(1).max(120).optional(),
  parent: Id.nullable().optional(),
});
export const HistoryBodySchema = z.strictObject({ history: HistorySchema });
export const FolderBodySchema = z.strictObject({ folder: FolderSchema });

export const ProjectListSchema = z.strictObject({ projects: z.array(ProjectRowSchema) });
export const NewProjectSchema = z.strictObject({ project: ProjectSchema.omit({ id: true, schema: true }) });
export const ProjectBodySchema = z.strictObject({
  project: ProjectSchema,
  revision: z.int(),
  history: HistorySchema,
  /** Set for a draft: the preset and version that it was opened from. */
  draft: z.strictObject({ preset: z.string().nullable(), version: z.int().nullable() }).nullable(),
});

const RecallRequestSchema = z.strictObject({
  source: z.union([
    z.strictObject({ preset: Id, version: z.int().min(1).optional() }),
    z.strictObject({ content: ContentSchema, name: z.string().min(1).max(200) }),
  ]),
  parts: z.array(z.enum(PARTS)).min(1),
  targets: z.union([
    z.strictObject({ strips: z.array(Id).min(1).max(2000) }),
    z.strictObject({ newStrip: z.strictObject({ after: Id.nullable() }) }),
  ]),
  mode: z.enum(INSERT_MODES),
});
export const PlanRequestSchema = z.strictObject({
  requests: z.array(RecallRequestSchema).min(1).max(200),
  /** Plan for this revision; without it, for the newest. */
  at: z.int().min(0).optional(),
  except: z.array(z.strictObject({ strip: Id.optional(), part: z.enum(PARTS).optional() })).optional(),
  answers: z.record(z.string(), z.string()).optional(),
});
const PlanSchema = z.strictObject({
  project: z.string(),
  steps: z.array(StepSchema),
  rows: z.array(
    z.strictObject({
      strip: z.string(),
      isNew: z.boolean(),
      parts: z.array(z.strictObject({ part: z.enum(PARTS), on: z.boolean(), steps: z.array(z.string()) })),
    }),
  ),
  questions: z.array(
    z.strictObject({
      id: z.string(),
      strip: z.string(),
      text: z.string(),
      choices: z.array(z.strictObject({ id: z.string(), text: z.string() })),
      answer: z.string(),
    }),
  ),
  notes: z.array(z.strictObject({ strip: z.string(), text: z.string() })),
});
export const PlanBodySchema = z.strictObject({ plan: PlanSchema, revision: z.int(), sentences: z.array(z.string()) });

export const ChangeRequestSchema = z.strictObject({
  baseRevision: z.int().min(0),
  steps: z.array(StepSchema).min(1).max(20_000),
  label: z.string().trim().min(1).max(300),
});
export const HistoryRequestSchema = z.strictObject({ baseRevision: z.int().min(0) });
export const RevisionListSchema = z.strictObject({ revisions: z.array(RevisionRowSchema) });
export const RevisionBodySchema = z.strictObject({ project: ProjectSchema, revision: z.int() });

export const MediaListSchema = z.strictObject({ media: z.array(MediaRowSchema) });
export const MediaBodySchema = z.strictObject({ media: MediaRowSchema });
export const NewMediaQuerySchema = z.strictObject({ name: z.string().trim().min(1).max(200) });

export const NewDraftSchema = z.strictObject({
  /** null for a scratch draft: nothing yet. */
  preset: Id.nullable(),
  /** With no preset: the model of an instrument to begin with. */
  instrument: z.string().min(1).max(80).optional(),
  /** For a sampler: the hash of what it plays. */
  sample: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .optional(),
  version: z.int().min(1).optional(),
  tempo: z.number().min(20).max(400).optional(),
});

export const SettingsBodySchema = z.strictObject({ settings: SettingsSchema, revision: z.int().min(0) });
export const SettingsChangeSchema = z.strictObject({ baseRevision: z.int().min(0), settings: SettingsSchema });

export const ModelSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  maker: z.string(),
  family: z.string(),
  params: z.array(z.unknown()),
  channels: z.strictObject({ in: z.int(), out: z.int() }),
  latency: z.int(),
  lead: z.string(),
  hearable: z.boolean(),
});
export const ModelListSchema = z.strictObject({ models: z.array(ModelSchema) });
/** Of each model: presets of it, presets with it inside, and strips of projects that have it. */
export const ModelCountsSchema = z.strictObject({
  counts: z.record(z.string(), z.strictObject({ presets: z.int(), inside: z.int(), uses: z.int() })),
});
export const ModelBodySchema = z.strictObject({ model: ModelSchema });
export const EmptySchema = z.strictObject({ ok: z.literal(true) });

export interface Endpoint {
  readonly method: "get" | "post" | "put" | "patch" | "delete";
  readonly path: string;
  readonly summary: string;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly answer: z.ZodType;
  readonly status?: number;
}

/** Every address of the API: the route handlers, the OpenAPI document and docs/api.md follow this list. */
export const ENDPOINTS: readonly Endpoint[] = [
  { method: "get", path: "/api/health", summary: "Whether it serves, and what it holds", answer: HealthSchema },
  { method: "get", path: "/api/openapi.json", summary: "This description", answer: z.unknown() },
  { method: "get", path: "/api/models", summary: "Every model", answer: ModelListSchema },
  {
    method: "get",
    path: "/api/models/counts",
    summary: "How many presets and strips have each model",
    answer: ModelCountsSchema,
  },
  { method: "get", path: "/api/models/{id}", summary: "One model with its parameters", answer: ModelBodySchema },
  {
    method: "get",
    path: "/api/presets",
    summary: "A page of the library",
    query: PresetQuerySchema,
    answer: PresetPageSchema,
  },
  {
    method: "post",
    path: "/api/presets",
    summary: "Save a new preset",
    body: NewPresetSchema,
    answer: PresetBodySchema,
    status: 201,
  },
  {
    method: "patch",
    path: "/api/presets",
    summary: "Change cards, all or none",
    body: CardChangesSchema,
    answer: PresetListSchema,
  },
  {
    method: "get",
    path: "/api/presets/{id}",
    summary: "One preset, its versions and uses; ?version=n for an earlier one",
    query: PresetDetailQuerySchema,
    answer: PresetDetailSchema,
  },
  {
    method: "put",
    path: "/api/presets/{id}/content",
    summary: "Save a new version",
    body: NewVersionSchema,
    answer: PresetBodySchema,
  },
  {
    method: "patch",
    path: "/api/presets/{id}/versions",
    summary: "Name a version; null takes the name away",
    body: VersionNameSchema,
    answer: EmptySchema,
  },
  { method: "delete", path: "/api/presets/{id}", summary: "Put into the bin", answer: EmptySchema },
  { method: "get", path: "/api/folders", summary: "All folders with counts", answer: FolderListSchema },
  {
    method: "post",
    path: "/api/folders",
    summary: "Make a folder",
    body: NewFolderSchema,
    answer: FolderBodySchema,
    status: 201,
  },
  {
    method: "patch",
    path: "/api/folders/{id}",
    summary: "Rename a folder or put it elsewhere",
    body: FolderChangeSchema,
    answer: EmptySchema,
  },
  {
    method: "delete",
    path: "/api/folders/{id}",
    summary: "Take a folder away; what is in it goes into the one above",
    answer: EmptySchema,
  },
  {
    method: "get",
    path: "/api/near-copies",
    summary: "Presets that are set the same, or nearly, in groups",
    query: NearCopiesQuerySchema,
    answer: NearCopiesSchema,
  },
  {
    method: "post",
    path: "/api/near-copies",
    summary: "Put near copies into one of them: tags, versions and uses are united",
    body: MergeSchema,
    answer: PresetBodySchema,
  },
  { method: "get", path: "/api/bin", summary: "What is in the bin", answer: BinSchema },
  {
    method: "delete",
    path: "/api/bin",
    summary: "Take presets in the bin away for good; ids null for all of them",
    body: EmptyBinSchema,
    answer: GoneSchema,
  },
  {
    method: "get",
    path: "/api/library/history",
    summary: "What undo and redo of the filing concern",
    answer: HistoryBodySchema,
  },
  {
    method: "post",
    path: "/api/library/undo",
    summary: "Take the last change of cards, folders or the bin back",
    answer: HistoryBodySchema,
  },
  {
    method: "post",
    path: "/api/library/redo",
    summary: "Do again what was taken back",
    answer: HistoryBodySchema,
  },
  { method: "get", path: "/api/projects", summary: "All projects", answer: ProjectListSchema },
  {
    method: "post",
    path: "/api/projects",
    summary: "Make a project",
    body: NewProjectSchema,
    answer: ProjectBodySchema,
    status: 201,
  },
  { method: "get", path: "/api/projects/{id}", summary: "One project or draft", answer: ProjectBodySchema },
  {
    method: "post",
    path: "/api/projects/{id}/plans",
    summary: "Plan a recall; changes nothing",
    body: PlanRequestSchema,
    answer: PlanBodySchema,
  },
  {
    method: "post",
    path: "/api/projects/{id}/changes",
    summary: "Apply steps as one revision",
    body: ChangeRequestSchema,
    answer: ProjectBodySchema,
  },
  {
    method: "post",
    path: "/api/projects/{id}/undo",
    summary: "Append the inverse of the last change",
    body: HistoryRequestSchema,
    answer: ProjectBodySchema,
  },
  {
    method: "post",
    path: "/api/projects/{id}/redo",
    summary: "Append what was undone",
    body: HistoryRequestSchema,
    answer: ProjectBodySchema,
  },
  { method: "get", path: "/api/projects/{id}/revisions", summary: "The log, newest first", answer: RevisionListSchema },
  { method: "get", path: "/api/projects/{id}/revisions/{n}", summary: "The project then", answer: RevisionBodySchema },
  {
    method: "post",
    path: "/api/drafts",
    summary: "Open a preset, or nothing yet, on the bench",
    body: NewDraftSchema,
    answer: ProjectBodySchema,
    status: 201,
  },
  { method: "delete", path: "/api/drafts/{id}", summary: "Drop a draft", answer: EmptySchema },
  { method: "get", path: "/api/media", summary: "Sounds of one's own", answer: MediaListSchema },
  {
    method: "post",
    path: "/api/media",
    summary: "Keep a sound: the body is a WAV file, not JSON; the same sound twice is kept once",
    query: NewMediaQuerySchema,
    answer: MediaBodySchema,
    status: 201,
  },
  { method: "get", path: "/api/media/{hash}", summary: "The sound itself, as a WAV file", answer: z.unknown() },
  { method: "get", path: "/api/settings", summary: "What the person has set up", answer: SettingsBodySchema },
  {
    method: "put",
    path: "/api/settings",
    summary: "Set up otherwise",
    body: SettingsChangeSchema,
    answer: SettingsBodySchema,
  },
  { method: "get", path: "/api/events", summary: "Server-sent: which records changed", answer: z.unknown() },
];

export type Health = z.infer<typeof HealthSchema>;
export type PresetQuery = z.infer<typeof PresetQuerySchema>;
export type PresetPage = z.infer<typeof PresetPageSchema>;
export type NewPreset = z.infer<typeof NewPresetSchema>;
export type PresetDetail = z.infer<typeof PresetDetailSchema>;
export type FolderChange = z.infer<typeof FolderChangeSchema>;
export type CardChanges = z.infer<typeof CardChangesSchema>;
export type ProjectBody = z.infer<typeof ProjectBodySchema>;
export type NewProject = z.infer<typeof NewProjectSchema>;
export type PlanRequest = z.infer<typeof PlanRequestSchema>;
export type PlanBody = z.infer<typeof PlanBodySchema>;
export type ChangeRequest = z.infer<typeof ChangeRequestSchema>;
export type NearCopies = z.infer<typeof NearCopiesSchema>;
export type ModelCounts = z.infer<typeof ModelCountsSchema>;
export type SettingsBody = z.infer<typeof SettingsBodySchema>;
export type SettingsChange = z.infer<typeof SettingsChangeSchema>;
export type MediaBody = z.infer<typeof MediaBodySchema>;
export type MediaList = z.infer<typeof MediaListSchema>;
export type NewDraft = z.infer<typeof NewDraftSchema>;
