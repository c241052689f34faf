import { z } from "zod";
import { ContentSchema } from "../presets/schema";
import { ProjectSchema } from "../projects/schema";
import { StepSchema } from "../recall/steps/step-schema";
import { SettingsSchema } from "../settings/schema";
import {
  FiledChangeSchema,
  FiledEntrySchema,
  FiledFoldersSchema,
  FiledMediaSchema,
  FiledPresetSchema,
  FiledProjectSchema,
  FiledSettingsSchema,
  FiledWrapUpSchema,
} from "./documents";
import { ManifestSchema } from "./manifest";

const versionsOf = FiledPresetSchema.shape.versions;

/** Every kind of document as a file has it, whole. */
const WHOLE = {
  preset: FiledPresetSchema.extend({
    versions: z.array(versionsOf.element.extend({ content: ContentSchema })).min(1),
  }),
  project: FiledProjectSchema.extend({ project: ProjectSchema }),
  "project-change": FiledChangeSchema.extend({ steps: z.array(StepSchema) }),
  "library-entry": FiledEntrySchema,
  folders: FiledFoldersSchema,
  settings: FiledSettingsSchema.extend({ settings: SettingsSchema.partial() }),
  media: FiledMediaSchema,
  "wrap-up": FiledWrapUpSchema,
  manifest: ManifestSchema,
} satisfies Record<string, z.ZodType>;

export type DocumentKind = keyof typeof WHOLE;

/** The JSON Schema (2020-12) of every kind of document, by its name. */
export const SCHEMAS = Object.fromEntries(
  Object.entries(WHOLE).map(([name, schema]) => [name, () => z.toJSONSchema(schema, { io: "input", reused: "ref" })]),
) as Readonly<Record<DocumentKind, () => object>>;
