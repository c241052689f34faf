import equal from "fast-deep-equal";
import {
  type Chain,
  type ChainNode,
  type Macro,
  type PresetRef,
  type Section,
  cameFrom,
  processorName,
} from "../chains/chain";
import { retargeted, withoutLostTargets } from "../chains/macros";
import { keysIn, mapNode, processorsOf, rekeyed } from "../chains/tree";
import { counted } from "../names/count";
import { fold } from "../names/words";
import { stripName } from "../strips/strip";
import { type PartContext, ask } from "./plan-aims";
import type { PlannedInserts } from "./plan-inserts";
import type { Step } from "./steps";

/*
 * Sections put into the place of sections. Laws: nothing outside of the sections that are taken changes, but macros that let go
 * of what is gone; a second time, nothing.
 */

const sectionsOf = ({ nodes }: Chain): readonly Section[] => nodes.filter((node) => node.type === "section");

/** The sections of a chain that is brought; a chain without any is one as a whole. Plugins beside its sections are left out, and said. */
function broughtBy({ request: { source } }: PartContext, chain: Chain, key: string) {
  const sections = sectionsOf(chain);
  if (sections.length > 0) {
    const beside = processorsOf({ ...chain, nodes: chain.nodes.filter(({ type }) => type !== "section") });
    const left = beside.map((p) => `${processorName(p)} stands in no section of “${source.name}”; it is left out.`);
    return { sections, left };
  }
  const { from, nodes } = chain;
  const name = from?.name ?? source.name;
  const whole = { type: "section", key, name, enabled: true, ...(from ? { from } : {}), nodes } as Section;
  return { sections: nodes.length > 0 ? [whole] : [], left: [] };
}

/** Which section here a section goes to: its key; null for behind all, undefined for nowhere. */
function placeFor(
  { draft, input, strip }: PartContext,
  { name, from }: Section,
  free: readonly Section[],
  isOnly: boolean,
): string | null | undefined {
  const named = free.find((own) => fold(own.name) === fold(name));
  const found = named ?? free.find((own) => cameFrom(own.from, from));
  if (found) return found.key;
  const [first] = free;
  const answer = ask(draft, input, {
    id: `section:${strip.id}:${fold(name)}`,
    strip: strip.id,
    text: `No section of ${stripName(strip)} is called “${name}”. Where does it go?`,
    choices: [
      { id: "behind", text: "Behind all that is there" },
      ...free.map((own) => ({ id: `on:${own.key}`, text: `In the place of “${own.name}”` })),
      { id: "leave", text: "Leave it out" },
    ],
    answer: first && isOnly ? `on:${first.key}` : "behind",
  });
  if (answer === "leave") return undefined;
  return answer === "behind" ? null : answer.slice("on:".length);
}

interface Placed {
  readonly node: ChainNode;
  /** What it takes the place of; null for one behind all. */
  readonly standing: ChainNode | null;
}

function placedOf(context: PartContext, brought: readonly Section[]): readonly Placed[] {
  const free = [...sectionsOf(context.strip.inserts)];
  const isOnly = free.length === 1 && brought.length === 1;
  return brought.flatMap((section): Placed[] => {
    const place = placeFor(context, section, free, isOnly);
    if (place === undefined) return [];
    const at = free.findIndex(({ key }) => key === place);
    const [standing = null] = at < 0 ? [] : free.splice(at, 1);
    return [{ node: section, standing }];
  });
}

/** A node under the keys of another, in order, where that makes it the same: it stands there already. */
function asStanding(node: ChainNode, standing: ChainNode) {
  const keys = keysIn(standing);
  if (keys.length !== keysIn(node).length) return null;
  const next = keys.values();
  const copy = rekeyed(node, () => next.next().value ?? "");
  return equal(copy.node, standing) ? copy : null;
}

/** A node under keys that nothing else uses, and that of the one whose place it takes. */
function underFreeKeys({ node, standing }: Placed, used: ReadonlySet<string>, mint: () => string) {
  const [own = "", ...inner] = keysIn(node);
  const isTaken = (key: string) => used.has(key) || key === standing?.key;
  const copy =
    inner.some(isTaken) || (!standing && used.has(own))
      ? rekeyed(node, mint)
      : { node, keys: new Map<string, string>() };
  if (!standing) return copy;
  return { node: { ...copy.node, key: standing.key }, keys: new Map([...copy.keys, [own, standing.key]]) };
}

interface Fresh {
  readonly fresh: readonly Placed[];
  readonly renamed: ReadonlyMap<string, string>;
  readonly used: ReadonlySet<string>;
}

/** Nodes as they come to stand here, and how keys were renamed for that. */
function freshOf(placed: readonly Placed[], now: Chain, mint: () => string): Fresh {
  const gone = new Set(placed.flatMap(({ standing }) => (standing ? keysIn(standing) : [])));
  const used = new Set([...now.nodes.flatMap(keysIn).filter((key) => !gone.has(key)), ...now.macros.map((m) => m.key)]);
  const renamed = new Map<string, string>();
  const fresh = placed.map((one) => {
    const same = one.standing && asStanding(one.node, one.standing);
    const { node, keys } = same ?? underFreeKeys(one, used, mint);
    for (const [from, to] of keys) renamed.set(from, to);
    for (const key of keysIn(node)) used.add(key);
    return { node, standing: one.standing };
  });
  return { fresh, renamed, used };
}

/** Macros that move nothing but what is brought. */
function macrosWith({ macros }: Chain, sections: readonly ChainNode[]): readonly Macro[] {
  const here = new Set(sections.flatMap(keysIn));
  return macros.filter(
    ({ axes }) =>
      axes.some((axis) => axis.length > 0) && axes.every((axis) => axis.every(({ node }) => here.has(node))),
  );
}

/** The steps that put nodes into their places, and let macros go of what is gone. `macros`: those that may come along. */
function planPlaces({ strip, input: { mint } }: PartContext, places: readonly Placed[], macros: readonly Macro[]) {
  const now = strip.inserts;
  const { fresh, renamed, used } = freshOf(places, now, mint);
  const changed = fresh.filter(({ node, standing }) => !standing || !equal(node, standing));
  const then = changed.reduce(
    (all: Chain, { node, standing }) =>
      standing ? mapNode(all, standing.key, () => node) : { ...all, nodes: [...all.nodes, node] },
    now,
  );
  const { macros: kept, lost } = withoutLostTargets(then);
  const added = macros
    .map((macro) => ({ ...retargeted(macro, renamed), key: used.has(macro.key) ? mint() : macro.key }))
    .filter((macro) => !kept.some((own) => equal({ ...own, key: macro.key }, macro)));
  const blank = () => ({ id: mint(), strip: strip.id });
  const setMacros = (from: readonly Macro[], to: readonly Macro[]): readonly Step[] =>
    equal(from, to) ? [] : [{ ...blank(), kind: "setMacros", from: [...from], to: [...to] }];
  let after = now.nodes.at(-1)?.key ?? null;
  const moved = changed.map(({ node, standing }): Step => {
    if (standing) return { ...blank(), kind: "setNode", node: node.key, from: standing, to: node };
    const step: Step = { ...blank(), kind: "placeNode", node: node.key, from: null, to: { node, after } };
    after = node.key;
    return step;
  });
  return { steps: [...setMacros(now.macros, kept), ...moved, ...setMacros(kept, [...kept, ...added])], lost };
}

const lostWords = (lost: number): readonly string[] =>
  lost === 0 ? [] : [`Macros let go of ${counted(lost, "value")} that went with it.`];

export function planSections(context: PartContext, chain: Chain): PlannedInserts {
  const { sections, left } = broughtBy(context, chain, context.input.mint());
  const placed = placedOf(context, sections);
  const macros = macrosWith(
    chain,
    placed.map(({ node }) => node),
  );
  const { steps, lost } = planPlaces(context, placed, macros);
  return { steps, left: [...left, ...lostWords(lost)] };
}

/** A section that stands here, with what it was loaded from as that is now; its name and its switch are its own. */
const renewed = (standing: Section, { nodes }: Chain, from: PresetRef): Section => ({
  ...standing,
  from,
  // A section holds no others.
  nodes: nodes.flatMap((node): Section["nodes"] => (node.type === "section" ? node.nodes : [node])),
});

/**
 * What came from the same preset, whichever version, in the place where it stands: plugins, or sections that are that chain. Law:
 * all else stays, but macros that let go of what is gone.
 */
export function planItself(context: PartContext, chain: Chain): PlannedInserts {
  const { strip, request } = context;
  const { from, content } = request.source;
  const isOwn = (node: { readonly from?: PresetRef | undefined }) => cameFrom(node.from, from);
  const [single] = content.kind === "plugin" ? processorsOf(chain) : [];
  const placed: readonly Placed[] = single
    ? processorsOf(strip.inserts).flatMap((standing) => (isOwn(standing) ? [{ node: single, standing }] : []))
    : sectionsOf(strip.inserts).flatMap((standing) =>
        from && isOwn(standing) ? [{ node: renewed(standing, chain, from), standing }] : [],
      );
  const { steps, lost } = planPlaces(context, placed, []);
  const gone = placed.length > 0 ? [] : [`“${request.source.name}” is not on ${stripName(strip)} any more; it stays.`];
  return { steps, left: [...gone, ...lostWords(lost)] };
}
