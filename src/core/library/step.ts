import type { Card, Content } from "../presets/preset";
import type { PlacedSearch, Settings } from "../settings/settings";

/** Fields of a card; null where an optional one is not there. */
export type CardFields = { readonly [K in keyof Card]?: Card[K] | null };

export interface FolderRecord {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
}

/** A small change of how the library is filed, with what stood there and what stands there now. */
export type LibraryStep =
  | { readonly kind: "card"; readonly preset: string; readonly from: CardFields; readonly to: CardFields }
  | { readonly kind: "bin"; readonly preset: string; readonly from: boolean; readonly to: boolean }
  | {
      /** Put into another preset, with all its versions and uses; null for one that stands by itself. */
      readonly kind: "merge";
      readonly preset: string;
      readonly from: string | null;
      readonly to: string | null;
    }
  | { readonly kind: "folder"; readonly from: FolderRecord | null; readonly to: FolderRecord | null }
  | {
      readonly kind: "versionName";
      readonly preset: string;
      readonly version: number;
      readonly from: string | null;
      readonly to: string | null;
    }
  | {
      /** A version that was made out of an earlier one, which is its number; null where there is no such version. */
      readonly kind: "version";
      readonly preset: string;
      readonly version: number;
      readonly from: number | null;
      readonly to: number | null;
    }
  | {
      /** A version that was saved, with what it holds; null where there is no such version. */
      readonly kind: "content";
      readonly preset: string;
      readonly version: number;
      readonly from: Content | null;
      readonly to: Content | null;
    }
  | { readonly kind: "search"; readonly from: PlacedSearch | null; readonly to: PlacedSearch | null }
  | {
      /** All versions of a preset, before and after those of another library were taken in; numbered from 1. */
      readonly kind: "versions";
      readonly preset: string;
      readonly from: readonly SideVersion[];
      readonly to: readonly SideVersion[];
    }
  | { readonly kind: "settings"; readonly from: Settings; readonly to: Settings }
  | ProjectStep;

/** A version on one side of a step: one of the other side, by its number there, or one that only this side has. */
export type SideVersion = { readonly basedOn: number | null } & (
  | { readonly was: number }
  | { readonly was: null; readonly savedAt: string; readonly name: string | null; readonly content: Content }
);

/** What bringing in does to projects; it is taken back with all else that came in. */
export type ProjectStep =
  | { readonly kind: "projectBin"; readonly project: string; readonly from: boolean; readonly to: boolean }
  /** From how it was after one change to how it was after another. */
  | { readonly kind: "projectHead"; readonly project: string; readonly from: number; readonly to: number }
  /** Two projects that are one once more take each other's id; `from` and `to` are the same, that of the other. */
  | { readonly kind: "projectSwap"; readonly project: string; readonly from: string; readonly to: string };

export const isProjectStep = (step: LibraryStep): step is ProjectStep => step.kind.startsWith("project");

/** What a change concerned: a sound, a project, a folder, a kept search. The name of a sound stands in the library. */
export type Subject =
  | { readonly kind: "preset" | "project"; readonly id: string }
  | { readonly kind: "folder" | "search"; readonly id: string; readonly name: string };

function subjectOf(step: LibraryStep): Subject | null {
  if (step.kind === "folder") {
    const folder = step.to ?? step.from;
    return folder && { kind: "folder", id: folder.id, name: folder.name };
  }
  if (step.kind === "search") {
    const placed = step.to ?? step.from;
    return placed && { kind: "search", id: placed.search.id, name: placed.search.name };
  }
  if (step.kind === "settings") return null;
  return isProjectStep(step) ? { kind: "project", id: step.project } : { kind: "preset", id: step.preset };
}

/** Each thing that some steps concern, once; sounds before all else. */
export function subjectsOf(steps: readonly LibraryStep[]): readonly Subject[] {
  const all = new Map(steps.map(subjectOf).flatMap((s) => (s ? [[`${s.kind} ${s.id}`, s] as const] : [])));
  const subjects = [...all.values()];
  return [...subjects.filter((s) => s.kind === "preset"), ...subjects.filter((s) => s.kind !== "preset")];
}

/** The steps that take others back. */
export const invertLibrarySteps = (steps: readonly LibraryStep[]): readonly LibraryStep[] =>
  steps.toReversed().map((step): LibraryStep => ({ ...step, from: step.to, to: step.from }) as LibraryStep);

/** What some fields of a card say now, so that they can be put back. */
export const fieldsOf = (card: Card, names: readonly (keyof Card)[]): CardFields =>
  Object.fromEntries(names.map((name) => [name, card[name] ?? null]));

/** The step that makes some fields of a card others; an optional one that is empty is not there. */
export function cardStep(preset: string, card: Card, to: CardFields): Extract<LibraryStep, { kind: "card" }> {
  const isEmpty = (value: unknown) => Array.isArray(value) && value.length === 0;
  const entries = Object.entries(to).map(([name, value]) => [name, name === "alsoIn" && isEmpty(value) ? null : value]);
  const from = fieldsOf(card, Object.keys(to) as (keyof Card)[]);
  return { kind: "card", preset, from, to: Object.fromEntries(entries) as CardFields };
}

/** A card with some fields changed; an optional field that is null is taken out. */
export function withFields(card: Card, fields: CardFields): Card {
  const entries = Object.entries({ ...card, ...fields }).filter(([name, value]) => value !== null || name === "folder");
  return Object.fromEntries(entries) as unknown as Card;
}
