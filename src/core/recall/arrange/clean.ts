import type { Project } from "../../projects/project";
import { type Result, fail, ok } from "../../result";
import type { Strip } from "../../strips/strip";
import { PART, PARTS, type PartName } from "../../strips/parts";
import { applySteps } from "../apply";
import { findBereft, firstHeirs, removeStrips } from "./remove";

/** What of a project stays when it is cleaned down. The main output, names, and where strips go, stay always. */
export interface Staying {
  readonly strips: readonly string[];
  readonly parts: readonly PartName[];
}

/** Parts that can be cleaned away. */
export const CLEANED = PARTS.filter((part) => part !== "look" && part !== "routing");

function cleanedStrip(strip: Strip, parts: readonly PartName[]): Strip {
  const gone = CLEANED.filter((part) => !parts.includes(part));
  return { ...strip, ...Object.fromEntries(gone.map((part) => [part, PART[part].empty(strip.kind)])) };
}

/**
 * A project cleaned down to what others are begun from: some of its strips, with some of their parts. What led to strips that go leads
 * on to where those went, or is left out. Whose song it was is forgotten. It is a project of its own; the one that it is made from stays.
 */
export function cleanedDown(project: Project, { strips, parts }: Staying, mint: () => string): Result<Project, string> {
  const gone = project.strips.filter(({ id, kind }) => kind !== "main" && !strips.includes(id)).map(({ id }) => id);
  const steps = removeStrips(project, gone, firstHeirs(findBereft(project, gone)), mint);
  if (!steps.ok) return steps;
  const left = applySteps(project, steps.value);
  if (!left.ok) return fail(left.error.reason);
  const kept = left.value.strips.map((strip) => cleanedStrip(strip, parts));
  return ok({ ...left.value, strips: kept, artist: "", client: "", song: "" });
}
