import type { StripRef } from "../../chains/chain";
import { folderOf, standsWithin } from "../../projects/nesting";
import { type Project, findStrip } from "../../projects/project";
import { findLoop, findLooped, flowOf, wayBetween, wayOf } from "../../projects/signal-flow";
import { fail, ok } from "../../result";
import { type PartName, PARTS, PART, eachPart } from "../../strips/parts";
import type { Part } from "../../strips/parts/part";
import type { Strip } from "../../strips/strip";
import { applySteps } from "../apply";
import type { Step } from "../steps";
import { changePart } from "./change-part";
import type { Arranged } from "./move";
import { startOrder } from "./order";

/** Strips that lead to one that is to go, or hear it, by one of their parts. */
export interface Bereft {
  /** The strip that goes. */
  readonly of: string;
  readonly part: PartName;
  /** Those that stay. */
  readonly strips: readonly Strip[];
  /** Where they may lead instead, so that no loop comes about. */
  readonly heirs: readonly Strip[];
  /** The one that is set beforehand; null for none: sends are left out, a plugin hears itself. */
  readonly heir: string | null;
}

/** Which strip takes the place of one that goes; null for none. */
export type Heirs = (of: string, part: PartName) => string | null;

/** The heirs that are set beforehand. */
export function firstHeirs(bereft: readonly Bereft[]): Heirs {
  const known = new Map(bereft.map(({ of, part, heir }) => [`${of} ${part}`, heir]));
  return (of, part) => known.get(`${of} ${part}`) ?? null;
}

/** The strips that a part of a strip leads to, or hears. */
const ledTo = (strip: Strip, part: PartName): readonly string[] =>
  eachPart({ [part]: strip[part] }, <V>(_: string, { aims }: Part<V>, value: V) =>
    (aims?.of(value) ?? []).flatMap((ref) => ("strip" in ref ? [ref.strip] : [])),
  ).flat();

/** Where the sound of a strip goes when it is taken out: where it went, over all that go with it. */
function nextBeyond(project: Project, id: string, gone: ReadonlySet<string>): string | null {
  const seen = new Set<string>();
  for (let at = findStrip(project, id); at && !seen.has(at.id); ) {
    seen.add(at.id);
    const { output } = at.routing;
    const to = output && "strip" in output ? output.strip : null;
    if (to !== null && !gone.has(to)) return to;
    at = to === null ? null : findStrip(project, to);
  }
  return project.strips.find((strip) => strip.kind === "main" && !gone.has(strip.id))?.id ?? null;
}

/** The folder in which one stood that is taken out, over all that go with it; null for none. */
function folderBeyond(project: Project, id: string, gone: ReadonlySet<string>): string | null {
  let at = findStrip(project, id);
  do at = at && folderOf(project, at);
  while (at && gone.has(at.id));
  return at?.id ?? null;
}

/** What is left without what it leads to, when strips are taken out; what each may lead to instead. */
export function findBereft(project: Project, ids: readonly string[]): readonly Bereft[] {
  const gone = new Set(ids);
  const staying = project.strips.filter((strip) => !gone.has(strip.id));
  const flow = flowOf({ ...project, strips: staying });
  return ids.flatMap((of) =>
    PARTS.flatMap((part): Bereft[] => {
      const strips = staying.filter((strip) => ledTo(strip, part).includes(of));
      if (strips.length === 0) return [];
      const way = PART[part].aims?.way ?? null;
      const closesNone = (heir: Strip) =>
        strips.every((strip) => {
          if (way === null) return heir.id !== strip.id && !standsWithin(project, heir, strip.id);
          const { from, to } = wayOf(way, strip.id, heir.id);
          return from !== to && wayBetween(flow, to, from) === null;
        });
      const takes = takersOf(part);
      const heirs = staying.filter((heir) => takes(heir) && closesNone(heir));
      const beyond =
        part === "routing" ? nextBeyond(project, of, gone) : part === "look" ? folderBeyond(project, of, gone) : null;
      return [{ of, part, strips, heirs, heir: heirs.some(({ id }) => id === beyond) ? beyond : null }];
    }),
  );
}

/** Which strips a part may lead to, or hear. What an instrument gives, nothing else does. */
function takersOf(part: PartName): (strip: Strip) => boolean {
  const { aims } = PART[part];
  return ({ kind }) => part !== "source" && aims !== null && aims.takes(kind);
}

/**
 * Takes strips out. What led to them leads to their heirs before, and each change is a step of its own. Heirs that close no loop one by
 * one may close one together: then it is said.
 */
export function removeStrips(project: Project, ids: readonly string[], heirs: Heirs, mint: () => string): Arranged {
  const gone = new Set(ids);
  const steps = project.strips.flatMap((strip) =>
    gone.has(strip.id) ? [] : PARTS.flatMap((part) => bequeathed(strip, part, { gone, heirs, mint })),
  );
  const led = applySteps(project, steps);
  if (!led.ok) return fail(led.error.reason);
  const order = startOrder(led.value.strips, mint);
  for (const id of ids) order.remove(id);
  const loop = newLoop(project, { ...led.value, strips: order.strips });
  return loop ? fail(`That would be a loop: ${loop.join(" → ")}.`) : ok([...steps, ...order.steps]);
}

/** The names along a loop that is not in the project of before. */
function newLoop(before: Project, then: Project): readonly string[] | null {
  const looped = findLooped(before) === null ? findLooped(then) : null;
  return looped === null ? null : findLoop(then, looped);
}

interface Bequest {
  readonly gone: ReadonlySet<string>;
  readonly heirs: Heirs;
  readonly mint: () => string;
}

/** The steps that let a part of a strip lead to the heirs. */
function bequeathed(strip: Strip, part: PartName, { gone, heirs, mint }: Bequest): readonly Step[] {
  if (!ledTo(strip, part).some((id) => gone.has(id))) return [];
  const aim = (ref: StripRef): StripRef | null => {
    if (!("strip" in ref) || !gone.has(ref.strip)) return ref;
    const heir = heirs(ref.strip, part);
    return heir === null ? null : { strip: heir };
  };
  const [mapped] = eachPart({ [part]: strip[part] }, <V>(_: string, { aims }: Part<V>, value: V): unknown =>
    aims ? aims.mapped(value, aim) : value,
  );
  return changePart(strip, part, mapped as Strip[typeof part], mint);
}
