import type { z } from "zod";
import {
  type FiledChange,
  type FiledEntry,
  type FiledFolder,
  FiledFoldersSchema,
  FiledMediaSchema,
  type FiledPreset,
  type FiledProject,
  FiledSettingsSchema,
  type FiledWrapUp,
  FiledWrapUpSchema,
  parseChange,
  parseEntry,
  parseFiled,
  parsePreset,
  parseProject,
  reread,
} from "@/core/archive/documents";
import { isBranch } from "@/core/archive/branch";
import type { CountedSettings } from "@/core/archive/join-settings";
import type { Problem } from "@/core/documents/problem";
import { type Result, fail, ok } from "@/core/result";
import { SettingsSchema } from "@/core/settings/schema";
import { NO_SETTINGS } from "@/core/settings/settings";
import { type OpenedArchive } from "./open-archive";
import { NotTaken } from "./zip-in";

/*
 * What comes in, from an archive or as a document by itself. A document that cannot be read is told, with its place and the reason, and
 * all else goes on; what is not what it says it is, is not taken at all (`NotTaken`).
 */

/** A document, or why it cannot be read, with what it is called as far as that can be told. */
export interface Read<T> {
  /** The file and the line that it stands in. */
  readonly where: string;
  readonly called: string;
  readonly document: Result<T, Problem>;
}

export interface ReadProject extends Read<FiledProject> {
  readonly id: string;
  /** All that was done to it, the first one first. */
  readonly changes: () => Promise<Result<readonly FiledChange[], Problem>>;
}

type MediaHead = z.infer<typeof FiledMediaSchema>["media"][number];

export interface Incoming {
  /** Everything that a library has: what was set up, and what was done to it, too. */
  readonly isWhole: boolean;
  /** How many sounds and projects there are. */
  readonly count: number;
  folders(): Promise<readonly FiledFolder[]>;
  presets(): AsyncGenerator<Read<FiledPreset>>;
  projects(): AsyncGenerator<ReadProject>;
  settings(): Promise<CountedSettings | null>;
  media(): Promise<readonly MediaHead[]>;
  mediaBytes(hash: string): Promise<Buffer>;
  entries(): AsyncGenerator<FiledEntry>;
  wrapUps(): AsyncGenerator<FiledWrapUp>;
}

/** What was said to be in a document, as a word or two for people. */
function calledIn(json: unknown): string {
  const named = json as { card?: { name?: unknown }; project?: { name?: unknown }; id?: unknown } | null;
  const name = named?.card?.name ?? named?.project?.name ?? named?.id;
  return typeof name === "string" ? name.slice(0, 200) : "";
}

function jsonIn(text: string): Result<unknown, Problem> {
  try {
    return ok(JSON.parse(text));
  } catch {
    return fail({ path: "", message: "It is no JSON." });
  }
}

/** One that must be right as a whole, since nothing goes on without it. */
function must<T>(parsed: Result<T, Problem>, path: string): T {
  if (!parsed.ok) throw new NotTaken(`“${path}” is not understood: ${parsed.error.path}: ${parsed.error.message}`);
  return parsed.value;
}

async function* linesIn<T>(
  archive: OpenedArchive,
  path: string,
  parse: (where: string, json: unknown) => Result<T, Problem>,
): AsyncGenerator<Read<T>> {
  for await (const { n, text } of archive.lines(path)) {
    const where = `${path}, line ${n}`;
    const json = jsonIn(text);
    yield { where, called: json.ok ? calledIn(json.value) : "", document: json.ok ? parse(where, json.value) : json };
  }
}

/** Reads presets; those that were read before, and were as they should be, are not checked again: the file is the same. */
function readingPresets(archive: OpenedArchive): () => AsyncGenerator<Read<FiledPreset>> {
  const known = new Map<string, readonly string[]>();
  const parse = (where: string, json: unknown): Result<FiledPreset, Problem> => {
    const prints = known.get(where);
    if (prints) return ok(reread(json, prints));
    const parsed = parsePreset(json);
    if (parsed.ok)
      known.set(
        where,
        parsed.value.versions.map(({ fingerprint }) => fingerprint),
      );
    return parsed;
  };
  return async function* () {
    for (const path of archive.paths("presets/", ".jsonl")) yield* linesIn(archive, path, parse);
  };
}

async function changesIn(archive: OpenedArchive, path: string): Promise<Result<readonly FiledChange[], Problem>> {
  const changes: FiledChange[] = [];
  if (archive.paths(path, "").length === 0) return ok(changes);
  for await (const { document } of linesIn(archive, path, (_, json) => parseChange(json))) {
    if (!document.ok) return document;
    if (document.value.n !== changes.length + 1)
      return fail({ path: "n", message: "The changes are not numbered from 1 on." });
    changes.push(document.value);
  }
  return ok(changes);
}

const history = (path: string): string => path.replace(/\.json$/, ".history.jsonl");

async function* projectsIn(archive: OpenedArchive): AsyncGenerator<ReadProject> {
  const paths = [...archive.paths("projects/", ".json"), ...archive.paths("drafts/", ".json")];
  const ids = new Map<string, string>();
  for (const path of paths) {
    const json = (await archive.json(path)) as { project?: { id?: unknown } } | null;
    const id = json?.project?.id;
    ids.set(path, typeof id === "string" ? id : "");
  }
  // Branches that were laid beside their project come behind it.
  const last = (path: string): number => (isBranch(ids.get(path) ?? "") ? 1 : 0);
  for (const path of paths.toSorted((a, b) => last(a) - last(b))) {
    const json = await archive.json(path);
    yield {
      where: path,
      called: calledIn(json),
      id: ids.get(path) ?? "",
      document: parseProject(json),
      changes: () => changesIn(archive, history(path)),
    };
  }
}

function settingsIn(json: unknown): CountedSettings {
  const { revision, settings } = must(parseFiled(FiledSettingsSchema, json), "settings.json");
  const parsed = SettingsSchema.safeParse({ ...NO_SETTINGS, ...(typeof settings === "object" ? settings : {}) });
  if (!parsed.success) throw new NotTaken("“settings.json” is not understood.");
  return { revision, settings: parsed.data };
}

/** What an archive holds. */
export function incomingFrom(archive: OpenedArchive): Incoming {
  const { scope, counts } = archive.manifest;
  const has = (path: string): boolean => archive.paths(path, path).length > 0;
  return {
    isWhole: scope.kind === "all",
    count: counts.presets + counts.projects + counts.drafts,
    folders: async () =>
      must(parseFiled(FiledFoldersSchema, await archive.json("folders.json")), "folders.json").folders,
    presets: readingPresets(archive),
    projects: () => projectsIn(archive),
    settings: async () => (has("settings.json") ? settingsIn(await archive.json("settings.json")) : null),
    media: async () => must(parseFiled(FiledMediaSchema, await archive.json("media.json")), "media.json").media,
    mediaBytes: (hash) => archive.bytes(`media/${hash}.wav`),
    entries: async function* () {
      const path = "history/library.jsonl";
      if (has(path))
        for await (const { where, document } of linesIn(archive, path, (_, json) => parseEntry(json)))
          yield must(document, where);
    },
    wrapUps: async function* () {
      const path = "history/wrap-ups.jsonl";
      const parse = (_: string, json: unknown) => parseFiled(FiledWrapUpSchema, json);
      if (has(path)) for await (const { where, document } of linesIn(archive, path, parse)) yield must(document, where);
    },
  };
}

async function* nothing(): AsyncGenerator<never> {}

async function* one<T>(item: T): AsyncGenerator<T> {
  yield await Promise.resolve(item);
}

/** A preset that comes by itself, in a file of its own. */
export function incomingPreset(json: unknown): Incoming {
  const document = parsePreset(json);
  return {
    isWhole: false,
    count: 1,
    folders: () => Promise.resolve(document.ok ? (document.value.folders ?? []) : []),
    presets: () => one({ where: "the file", called: calledIn(json), document }),
    projects: nothing,
    settings: () => Promise.resolve(null),
    media: () => Promise.resolve([]),
    mediaBytes: () => Promise.reject(new NotTaken("A preset by itself brings no sound files.")),
    entries: nothing,
    wrapUps: nothing,
  };
}
