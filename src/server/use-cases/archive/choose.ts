import type { PresetQuery } from "@/contracts/library";
import type { Wish } from "@/contracts/archive";
import type { Scope } from "@/core/archive/manifest";
import { quoteValue } from "@/core/search/written";
import { readCard } from "../../data/stored";
import { readingAside } from "../../data/statements";
import type { Chosen } from "../../archive/gather";
import { type Outcome, failure } from "../../failure";
import { ok } from "@/core/result";
import type { Statements } from "../../data/statements";
import type { FolderTable, HoldTable, PresetTable, ProjectTable, UseTable } from "../../data/tables";
import type { Context } from "../../store/context";
import { findRows } from "../find-presets";

export interface ChosenPart {
  readonly chosen: Chosen;
  readonly scope: Scope;
}

const EVERYTHING: ChosenPart = { chosen: { presets: null, projects: null }, scope: { kind: "all" } };

/** Presets with all that they hold, and what those hold. */
function withHeld(statement: Statements, presets: Iterable<string>): ReadonlySet<string> {
  const held = statement<Pick<HoldTable, "held">>(
    "SELECT h.held FROM preset_holds h JOIN presets p ON p.row = h.preset WHERE p.id = ?",
  );
  const all = new Set(presets);
  // What is added while it is walked is walked, too.
  for (const id of all) for (const { held: inner } of held.all(id)) all.add(inner);
  return all;
}

const usedBy = (statement: Statements, projects: Iterable<string>): readonly string[] => {
  const used = statement<Pick<UseTable, "preset">>("SELECT DISTINCT preset FROM uses WHERE project = ?");
  return [...projects].flatMap((id) => used.all(id).map(({ preset }) => preset));
};

interface Part {
  readonly presets: readonly string[];
  readonly projects: readonly string[];
  readonly words: string;
}

type PartOf<K extends Wish["kind"]> = Extract<Wish, { kind: K }>;

function findFolder({ search, folder }: Looking, { id }: PartOf<"folder">): Part | null {
  const found = folder(id);
  if (!found) return null;
  return { presets: search({ q: "", folder: id }), projects: [], words: `the folder “${found.name}”` };
}

function findClient({ statement, search }: Looking, { name }: PartOf<"client">): Part {
  const projects = statement<Pick<ProjectTable, "id">>(
    "SELECT id FROM projects WHERE client = ? AND kind = 'project' AND binned_at IS NULL",
  ).all(name);
  const presets = search({ q: `client:${quoteValue(name)}` });
  return { presets, projects: projects.map(({ id }) => id), words: `what was made for ${name}` };
}

function findPreset({ statement }: Looking, { id }: PartOf<"preset">): Part | null {
  const row = statement<Pick<PresetTable, "card">>("SELECT card FROM presets WHERE id = ?").get(id);
  return row ? { presets: [id], projects: [], words: `the sound “${readCard(row.card).name}”` } : null;
}

function findProject({ statement }: Looking, { id }: PartOf<"project">): Part | null {
  const row = statement<Pick<ProjectTable, "name">>("SELECT name FROM projects WHERE id = ? AND kind = 'project'").get(
    id,
  );
  return row ? { presets: [], projects: [id], words: `the project “${row.name}”, with all it uses` } : null;
}

interface Looking {
  readonly statement: Statements;
  readonly search: (asked: PresetQuery) => readonly string[];
  readonly folder: (id: string) => Pick<FolderTable, "name"> | undefined;
}

function find(looking: Looking, wish: Exclude<Wish, { kind: "all" }>): Part | null {
  switch (wish.kind) {
    case "folder":
      return findFolder(looking, wish);
    case "client":
      return findClient(looking, wish);
    case "search": {
      const { q, only = "" } = wish;
      return {
        presets: looking.search({ q, only, folder: wish.folder }),
        projects: [],
        words: `what “${[q, only].join(" ").trim()}” finds`,
      };
    }
    case "preset":
      return findPreset(looking, wish);
    case "project":
      return findProject(looking, wish);
  }
}

/** What a wish comes to: with it goes all that is held or used, so that it is whole by itself. */
export function choosePart(context: Pick<Context, "search" | "folder">, wish: Wish): Outcome<ChosenPart> {
  if (wish.kind === "all") return ok(EVERYTHING);
  const { statement, close } = readingAside(context.folder);
  try {
    const idOf = statement<Pick<PresetTable, "id">>("SELECT id FROM presets WHERE row = ?");
    const folder = statement<Pick<FolderTable, "name">>("SELECT name FROM folders WHERE id = ?");
    const part = find(
      {
        statement,
        search: (asked) => findRows(context, asked).flatMap((row) => idOf.get(row)?.id ?? []),
        folder: (id) => folder.get(id),
      },
      wish,
    );
    if (!part) return failure("notFound", `There is no such ${wish.kind} here.`);
    const presets = withHeld(statement, [...part.presets, ...usedBy(statement, part.projects)]);
    if (presets.size === 0 && part.projects.length === 0)
      return failure("refused", "There is nothing in it to archive.", { path: "wish" });
    const scope: Scope = { kind: "part", words: part.words.slice(0, 400) };
    return ok({ chosen: { presets, projects: new Set(part.projects) }, scope });
  } finally {
    close();
  }
}
