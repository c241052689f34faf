import { z } from "zod";
import { STRIP_KINDS } from "@/core/documents/strip-kinds";
import { ContentSchema } from "@/core/presets/schema";
import { ProjectSchema } from "@/core/projects/schema";
import { INSERT_MODES } from "@/core/recall/plan-inserts";
import { LAYER_TAKES } from "@/core/recall/plan-layers";
import { SEND_MODES } from "@/core/recall/plan-sends";
import { MOST_LETTERS } from "@/core/search/written";
import { StepSchema } from "@/core/recall/steps/step-schema";
import { PARTS } from "@/core/strips/parts";
import { HistorySchema, MediaRowSchema, ProjectRowSchema, RevisionRowSchema, StripRowSchema } from "./records";

const Id = z.string().min(1).max(80);
export const RevisionNumberSchema = z.coerce.number().int().min(0);

export const ProjectListSchema = z.strictObject({ projects: z.array(ProjectRowSchema) });
export const NewProjectSchema = z.strictObject({
  project: ProjectSchema.omit({ id: true, schema: true, mixes: true }),
});
export const ProjectBodySchema = z.strictObject({
  project: ProjectSchema,
  revision: z.int(),
  history: HistorySchema,
  /** Set for a draft: the preset and version that it was opened from. */
  draft: z.strictObject({ preset: z.string().nullable(), version: z.int().nullable() }).nullable(),
  /** When it was put into the bin, where nothing of it can be changed; null where it is not in it. */
  binnedAt: z.iso.datetime().nullable(),
});

export const ProjectListQuerySchema = z.strictObject({
  /** Those that are in the bin, in place of those that are not. */
  binned: z.literal("true").optional(),
});
/** A project is put into the bin, or taken out. */
export const BinChangeSchema = z.strictObject({ binned: z.boolean() });

export const FiguresQuerySchema = z.strictObject({
  /** Ids of projects, with commas between them. */
  of: z
    .string()
    .max(10_000)
    .transform((ids) => ids.split(",").filter((id) => id !== ""))
    .pipe(z.array(Id).min(1).max(100)),
});
export const FiguresSchema = z.strictObject({
  figures: z.array(
    z.strictObject({
      id: Id,
      /** With all that was ever done to it. */
      bytes: z.int(),
      /** Strips whose sound is not as in any preset that it came from. */
      unsaved: z.int(),
    }),
  ),
});

const RecallRequestSchema = z.strictObject({
  source: z.union([
    /** A preset; of a set or a mix also one of its strips alone, by its key there. */
    z.strictObject({ preset: Id, version: z.int().min(1).optional(), strip: Id.optional() }),
    /** Strips of a project, as they are now or were at a revision. */
    z.strictObject({
      project: Id,
      revision: z.int().min(0).optional(),
      strips: z.array(Id).min(1).max(2000),
    }),
    z.strictObject({ content: ContentSchema, name: z.string().min(1).max(200) }),
  ]),
  parts: z.array(z.enum(PARTS)).min(1),
  targets: z.union([
    z.strictObject({ strips: z.array(Id).min(1).max(2000) }),
    z.strictObject({
      slot: z.union([z.strictObject({ strip: Id, on: Id }), z.strictObject({ strip: Id, after: Id.nullable() })]),
    }),
    z.strictObject({ newStrip: z.strictObject({ after: Id.nullable() }) }),
    z.strictObject({
      set: z.strictObject({
        onto: z.enum(["matched", "new"]),
        among: z.array(Id).max(2000).nullable(),
        after: Id.nullable(),
      }),
    }),
  ]),
  mode: z.enum(INSERT_MODES),
  layers: z.enum(LAYER_TAKES).optional(),
  sends: z.enum(SEND_MODES).optional(),
});
export const PlanRequestSchema = z.strictObject({
  requests: z.array(RecallRequestSchema).min(1).max(200),
  /** Plan for this revision; without it, for the newest. */
  at: z.int().min(0).optional(),
  except: z
    .array(
      z.strictObject({
        strip: Id.optional(),
        part: z.enum(PARTS).optional(),
        send: z.string().min(1).max(100).optional(),
      }),
    )
    .optional(),
  answers: z.record(z.string(), z.string()).optional(),
});
const PlanSchema = z.strictObject({
  project: z.string(),
  steps: z.array(StepSchema),
  rows: z.array(
    z.strictObject({
      strip: z.string(),
      key: z.string(),
      isNew: z.boolean(),
      parts: z.array(
        z.strictObject({
          part: z.enum(PARTS),
          on: z.boolean(),
          steps: z.array(z.string()),
          sends: z.array(z.strictObject({ key: z.string(), name: z.string(), on: z.boolean() })).optional(),
        }),
      ),
    }),
  ),
  matches: z.array(
    z.strictObject({
      id: z.string(),
      saved: z.string(),
      name: z.string(),
      kind: z.enum(STRIP_KINDS),
      answer: z.string(),
      strip: z.string().nullable(),
      reason: z.string(),
      confidence: z.number(),
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
  /** A sound that is only passed by while one looks for another: that is no use of it. */
  passing: z.boolean().optional(),
  /** Answer without the project, where it is just what the base was with these steps. */
  brief: z.boolean().optional(),
});
export const ChangedBodySchema = ProjectBodySchema.partial({ project: true });
export const HistoryRequestSchema = z.strictObject({ baseRevision: z.int().min(0) });
export const UndoRequestSchema = HistoryRequestSchema.extend({
  /** This change alone, where nothing later stands on it; without it the last that stands. */
  revision: z.int().min(1).optional(),
});
/** One gesture over several projects. */
export const TogetherRequestSchema = z.strictObject({
  label: z.string().trim().min(1).max(300),
  changes: z
    .array(
      z.strictObject({
        project: Id,
        baseRevision: z.int().min(0),
        steps: z.array(StepSchema).min(1).max(20_000),
      }),
    )
    .min(1)
    .max(500)
    .refine((changes) => new Set(changes.map(({ project }) => project)).size === changes.length, "Each project once."),
});
/** The revisions that it made, one of each project; with these it is taken back. */
export const TogetherSchema = z.strictObject({
  revisions: z
    .array(z.strictObject({ project: Id, revision: z.int().min(1) }))
    .min(1)
    .max(500),
});
export const RevisionListSchema = z.strictObject({ revisions: z.array(RevisionRowSchema) });
export const RevisionBodySchema = z.strictObject({ project: ProjectSchema, revision: z.int() });

export const StripQuerySchema = z.strictObject({
  /** In the language of the search field, as far as it is about strips; see docs/finding.md. */
  q: z.string().max(MOST_LETTERS).optional(),
  offset: z.coerce.number().int().min(0).max(10_000_000).optional(),
  limit: z.coerce.number().int().min(1).max(200).optional(),
});
export const StripPageSchema = z.strictObject({
  items: z.array(StripRowSchema),
  total: z.int(),
  unclear: z.array(z.string()),
  corrected: z.array(z.strictObject({ typed: z.string(), read: z.string() })),
});

export const MediaListSchema = z.strictObject({ media: z.array(MediaRowSchema) });
export const MediaBodySchema = z.strictObject({ media: MediaRowSchema });
/** Sounds of one's own with the room that each takes, in bytes, and whether anything uses it. */
export const MediaRoomSchema = z.strictObject({
  items: z.array(MediaRowSchema.extend({ bytes: z.int(), used: z.boolean() })),
});
export const RemovedMediaSchema = z.strictObject({ hashes: z.array(MediaRowSchema.shape.hash).min(1).max(10_000) });
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
  /** With no preset: a strip as it was after a change of its project, under the name by which that is told. */
  moment: z
    .strictObject({ project: Id, revision: z.int().min(0), strip: Id, name: z.string().trim().min(1).max(200) })
    .optional(),
  tempo: z.number().min(20).max(400).optional(),
  /** Another than the one that was left and not saved. */
  fresh: z.boolean().optional(),
});

/** Sounds that were begun from nothing and are not saved, the last changed first. */
export const DraftListSchema = z.object({
  drafts: z.array(
    z.object({
      id: Id,
      changedAt: z.string(),
      /** Names of what sounds in it, in the order of the signal. */
      plugins: z.array(z.string()),
    }),
  ),
});

export type Figures = z.infer<typeof FiguresSchema>;
export type ProjectBody = z.infer<typeof ProjectBodySchema>;
export type ChangedBody = z.infer<typeof ChangedBodySchema>;
export type NewProject = z.infer<typeof NewProjectSchema>;
export type PlanRequest = z.infer<typeof PlanRequestSchema>;
export type PlanBody = z.infer<typeof PlanBodySchema>;
export type ChangeRequest = z.infer<typeof ChangeRequestSchema>;
export type TogetherRequest = z.infer<typeof TogetherRequestSchema>;
export type Together = z.infer<typeof TogetherSchema>;
export type RevisionBody = z.infer<typeof RevisionBodySchema>;
export type StripQuery = z.infer<typeof StripQuerySchema>;
export type StripPage = z.infer<typeof StripPageSchema>;
export type MediaBody = z.infer<typeof MediaBodySchema>;
export type MediaRoom = z.infer<typeof MediaRoomSchema>;
export type MediaList = z.infer<typeof MediaListSchema>;
export type NewDraft = z.infer<typeof NewDraftSchema>;
export type DraftList = z.infer<typeof DraftListSchema>;
