import { z } from "zod";
import { type Problem, formatPath, parseWith } from "../documents/problem";
import { liftLibrarySteps } from "../library/migrations";
import { fingerprint } from "../presets/fingerprint";
import { liftContent } from "../presets/migrations";
import type { Content } from "../presets/preset";
import { CardSchema, ContentSchema, FiledNameSchema } from "../presets/schema";
import { completeContent, findContentProblem } from "../presets/whole";
import { liftProject } from "../projects/migrations";
import { findProjectProblem } from "../projects/problems";
import type { Project } from "../projects/project";
import { ProjectSchema } from "../projects/schema";
import { liftSteps } from "../recall/migrations";
import type { Step } from "../recall/steps";
import { StepSchema } from "../recall/steps/step-schema";
import { type Result, fail, messageOf, ok } from "../result";
import type { Lineage } from "./join-versions";

/*
 * The documents that an archive holds. Each says what it is and in which form it is written; what is in it, preset or project, is the
 * document that the library keeps, with the number of its own schema.
 */

/** The number of the form below; a higher one was written by a newer Diathesis. */
export const FORM = 1;

const Id = z.string().min(1).max(80);
const Instant = z.iso.datetime();
const form = z.int().min(1);

/** A version as a file says it; `content` is checked by itself, once it is lifted. */
const FiledVersionSchema = z.strictObject({
  version: z.int().min(1),
  savedAt: Instant,
  name: z.string().max(200).nullable(),
  /** The version that it was made of; null for the one before it. */
  basedOn: z.int().min(1).nullable(),
  content: z.unknown(),
});

/** A preset with all its versions and its card: a line of an archive, or a file of its own. */
export const FiledPresetSchema = z.strictObject({
  diathesis: z.literal("preset"),
  form,
  id: Id,
  /** The pack that it came with; null for one's own. */
  pack: z.string().max(200).nullable(),
  card: CardSchema,
  /** When its card or its place was changed last. */
  filedAt: Instant,
  binnedAt: Instant.nullable(),
  /** The preset that it was put into. */
  mergedInto: Id.nullable(),
  usedAt: Instant.nullable(),
  /** From 1 on. */
  versions: z.array(FiledVersionSchema).min(1).max(100_000),
  /** The folders on the way to it, where it stands in a file of its own. */
  folders: z
    .array(z.lazy(() => FiledFolderSchema))
    .max(100)
    .optional(),
});

export const FiledFolderSchema = z.strictObject({
  id: Id,
  name: FiledNameSchema(120),
  parent: Id.nullable(),
  changedAt: Instant,
});

export const FiledFoldersSchema = z.strictObject({
  diathesis: z.literal("folders"),
  form,
  folders: z.array(FiledFolderSchema).max(100_000),
});

/** A project, or a draft, as it stands; its past lies beside it, a change in a line. */
export const FiledProjectSchema = z.strictObject({
  diathesis: z.literal("project"),
  form,
  /** How many changes its past has. */
  revision: z.int().min(0),
  changedAt: Instant,
  binnedAt: Instant.nullable(),
  /** Of a draft, the preset that it goes by; null for a project. */
  draft: z.strictObject({ preset: Id.nullable(), version: z.int().min(1).nullable() }).nullable(),
  project: z.unknown(),
});

const logged = {
  n: z.int().min(1),
  at: Instant,
  label: z.string().max(2000),
  undoes: z.int().min(1).nullable(),
  redoes: z.int().min(1).nullable(),
  window: z.string().max(200).nullable(),
  steps: z.array(z.unknown()).max(1_000_000),
};

/** A change in the past of a project. */
export const FiledChangeSchema = z.strictObject(logged);

/** A change in the past of the library. */
export const FiledEntrySchema = z.strictObject({ ...logged, closed: z.boolean(), about: z.unknown() });

export const FiledSettingsSchema = z.strictObject({
  diathesis: z.literal("settings"),
  form,
  revision: z.int().min(0),
  settings: z.unknown(),
});

export const FiledMediaSchema = z.strictObject({
  diathesis: z.literal("media"),
  form,
  media: z
    .array(
      z.strictObject({
        hash: z.string().regex(/^[0-9a-f]{64}$/),
        name: z.string().min(1).max(200),
        seconds: z.number().min(0),
        addedAt: Instant,
      }),
    )
    .max(1_000_000),
});

export const FiledWrapUpSchema = z.strictObject({
  project: Id,
  at: Instant,
  passedOver: z.array(z.string().max(200)).max(100_000),
  log: z.int().nullable(),
  revision: z.int().nullable(),
});

export type FiledPreset = Omit<z.infer<typeof FiledPresetSchema>, "versions"> & {
  readonly versions: readonly FiledVersion[];
};
export type FiledVersion = Omit<z.infer<typeof FiledVersionSchema>, "content"> & {
  readonly content: Content;
  readonly fingerprint: string;
};
export type FiledFolder = z.infer<typeof FiledFolderSchema>;
export type FiledProject = Omit<z.infer<typeof FiledProjectSchema>, "project"> & { readonly project: Project };
export type FiledChange = Omit<z.infer<typeof FiledChangeSchema>, "steps"> & { readonly steps: readonly Step[] };
export type FiledEntry = Omit<z.infer<typeof FiledEntrySchema>, "steps"> & {
  readonly steps: ReturnType<typeof liftLibrarySteps>;
};
export type FiledWrapUp = z.infer<typeof FiledWrapUpSchema>;

export const lineageOf = ({ versions }: Pick<FiledPreset, "versions">): readonly Lineage[] =>
  versions.map(({ version, savedAt, fingerprint: print, basedOn }) => ({
    version,
    savedAt,
    fingerprint: print,
    basedOn,
  }));

const refusedForm = (given: unknown): string | null => {
  const isNewer =
    typeof given === "object" &&
    given !== null &&
    "form" in given &&
    typeof given.form === "number" &&
    given.form > FORM;
  return isNewer ? "It was written by a newer Diathesis; use that one." : null;
};

/** What is lifted to today's form; why not, in words. */
function lifted<T>(lift: () => T, path: string): Result<T, Problem> {
  try {
    return ok(lift());
  } catch (error) {
    return fail({ path, message: messageOf(error) });
  }
}

export function parseFiled<T>(schema: z.ZodType<T>, given: unknown): Result<T, Problem> {
  const newer = refusedForm(given);
  return newer === null ? parseWith(schema, given) : fail({ path: "form", message: newer });
}

/** A document that was checked before: it is only lifted. `prints`: the fingerprints that its versions had. */
export function reread(given: unknown, prints: readonly string[]): FiledPreset {
  const filed = given as z.infer<typeof FiledPresetSchema>;
  const versions = filed.versions.map((version, at) => ({
    ...version,
    content: completeContent(liftContent(version.content)),
    fingerprint: prints[at]!,
  }));
  return { ...filed, versions };
}

function parseVersion(given: z.infer<typeof FiledVersionSchema>, at: number): Result<FiledVersion, Problem> {
  const path = formatPath(["versions", at, "content"]);
  const content = lifted(() => liftContent(given.content), path);
  if (!content.ok) return content;
  const parsed = parseWith(ContentSchema, content.value, ["versions", at, "content"]);
  if (!parsed.ok) return parsed;
  const problem = findContentProblem(parsed.value);
  if (problem) return fail({ ...problem, path: `${path}.${problem.path}` });
  const whole = completeContent(parsed.value);
  return ok({ ...given, content: whole, fingerprint: fingerprint(whole) });
}

/** A preset as a file says it, lifted and checked; the first problem with its field. */
export function parsePreset(given: unknown): Result<FiledPreset, Problem> {
  const outer = parseFiled(FiledPresetSchema, given);
  if (!outer.ok) return outer;
  const versions: FiledVersion[] = [];
  for (const [at, one] of outer.value.versions.entries()) {
    if (one.version !== at + 1 || (one.basedOn !== null && one.basedOn > at))
      return fail({
        path: `versions[${at}].version`,
        message: "Versions are numbered from 1, each made of one before.",
      });
    const version = parseVersion(one, at);
    if (!version.ok) return version;
    versions.push(version.value);
  }
  const kinds = new Set(versions.map(({ content }) => content.kind));
  if (kinds.size > 1) return fail({ path: "versions", message: "All versions of a preset are of one kind." });
  return ok({ ...outer.value, versions });
}

/** A project as a file says it, lifted and checked. */
export function parseProject(given: unknown): Result<FiledProject, Problem> {
  const outer = parseFiled(FiledProjectSchema, given);
  if (!outer.ok) return outer;
  const project = lifted(() => liftProject(outer.value.project), "project");
  if (!project.ok) return project;
  const parsed = parseWith(ProjectSchema, project.value, ["project"]);
  if (!parsed.ok) return parsed;
  const problem = findProjectProblem(parsed.value);
  if (problem) return fail({ ...problem, path: `project.${problem.path}` });
  return ok({ ...outer.value, project: parsed.value });
}

/** A change of a project as a file says it. */
export function parseChange(given: unknown): Result<FiledChange, Problem> {
  const outer = parseFiled(FiledChangeSchema, given);
  if (!outer.ok) return outer;
  const steps = lifted(() => liftSteps(outer.value.steps), "steps");
  if (!steps.ok) return steps;
  for (const [at, step] of steps.value.entries()) {
    const parsed = parseWith(StepSchema, step, ["steps", at]);
    if (!parsed.ok) return parsed;
  }
  return ok({ ...outer.value, steps: steps.value });
}

/** An entry of the library's log as a file says it. */
export function parseEntry(given: unknown): Result<FiledEntry, Problem> {
  const outer = parseFiled(FiledEntrySchema, given);
  if (!outer.ok) return outer;
  const steps = lifted(() => liftLibrarySteps(outer.value.steps), "steps");
  return steps.ok ? ok({ ...outer.value, steps: steps.value }) : steps;
}
