import type { z } from "zod";
import { withOne } from "./kept-list";
import type { Project } from "./project";
import type { MixSchema } from "./schema";

/** A moment of a project that is kept under a name: a mix to go back to, and to hear another against. */
export type Mix = Readonly<z.infer<typeof MixSchema>>;

export const mixesOf = ({ mixes = [] }: Pick<Project, "mixes">): readonly Mix[] => mixes;

export const findMix = (project: Project, id: string): Mix | null =>
  mixesOf(project).find((mix) => mix.id === id) ?? null;

const inOrder = (a: Mix, b: Mix): number => a.n - b.n || (a.id < b.id ? -1 : 1);

/** A project with one of its mixes set, or taken out where it is null. Law: of the same mixes in any order it is the same project. */
export function withMix(project: Project, id: string, mix: Mix | null): Project {
  const { mixes: _, ...bare } = project;
  const mixes = withOne(mixesOf(project), { id, one: mix }, inOrder);
  return mixes.length > 0 ? { ...bare, mixes } : bare;
}

/** "Second chorus up, take 3"; the name alone where no take is told. */
export const mixTitle = ({ name, take }: Pick<Mix, "name" | "take">): string =>
  take === "" ? name : `${name}, take ${take}`;
