import type { Chain, ChainNode } from "../chains/chain";
import { withoutLostTargets } from "../chains/macros";
import { findList, findNode } from "../chains/tree";
import { findProjectProblem } from "../projects/problems";
import { type Project, findStrip } from "../projects/project";
import type { Relief, RelievedPlugin } from "../projects/reliefs";
import { applySteps } from "../recall/apply";
import { type Hand, putIn, setMacros, switchOn } from "../recall/gestures";
import type { Step } from "../recall/steps";
import { type Result, fail, ok } from "../result";
import { chainAt } from "../strips/strip";
import equal from "fast-deep-equal";

/** One that is not put back, and why: "its section is gone". */
export interface Left {
  readonly plugin: RelievedPlugin;
  readonly why: string;
  /** Whether it stays remembered, since it may find its place again; one that is there already is let go. */
  readonly stays: boolean;
}

export interface PutBack {
  readonly steps: readonly Step[];
  readonly back: readonly RelievedPlugin[];
  readonly left: readonly Left[];
  /** How many chains have macros that do not move again what they moved. */
  readonly macrosLeft: number;
}

type Why = Omit<Left, "plugin">;

const gone = (why: string): Result<never, Why> => fail({ why, stays: true });
const isThere = (why: string): Result<never, Why> => fail({ why, stays: false });

const isKeyed = (node: ChainNode): boolean => "keyInput" in node && node.keyInput != null;

/** The chain that a plugin stood in, as a hand holds it now. */
function handAt(project: Project, at: { strip: string; layer?: string | undefined }, mint: () => string) {
  const strip = findStrip(project, at.strip);
  if (!strip) return gone("its strip is gone");
  const chain = chainAt(strip, at.layer);
  if (!chain) return gone("its layer is gone");
  const hand: Hand = { strip, layer: at.layer, mint };
  return ok({ hand, chain });
}

/** The steps that put one back into a chain as it is now. */
function stepsOf(
  { key, out }: RelievedPlugin,
  { hand, chain }: { hand: Hand; chain: Chain },
): Result<readonly Step[], Why> {
  const found = findNode(chain, key)?.node;
  if (!out) {
    if (!found) return gone("it is gone");
    const steps = switchOn(hand, [key], true);
    return steps.length > 0 ? ok(steps) : isThere("it is on already");
  }
  if (found) return isThere("it is there already");
  const within = out.within ?? null;
  const list = findList(chain, within);
  if (!list) return gone("the group that it stood in is gone");
  const here = new Set(list.map((node) => node.key));
  return ok(putIn(hand, out.node, { within, after: out.before.find((one) => here.has(one)) ?? null }));
}

function placeOne(
  project: Project,
  plugin: RelievedPlugin,
  mint: () => string,
): Result<{ steps: readonly Step[]; project: Project }, Why> {
  const at = handAt(project, plugin, mint);
  if (!at.ok) return at;
  const steps = stepsOf(plugin, at.value);
  if (!steps.ok) return steps;
  const applied = applySteps(project, steps.value);
  if (!applied.ok) return gone(applied.error.reason.replace(/\.$/, ""));
  // What keys it may be gone, or hear this strip by now.
  const problem = plugin.out && isKeyed(plugin.out.node) ? findProjectProblem(applied.value) : null;
  if (problem && findProjectProblem(project)?.message !== problem.message)
    return gone(problem.message.replace(/\.$/, ""));
  return ok({ steps: steps.value, project: applied.value });
}

/** Macros aim again at what they lost, where they are as they were left. */
function macroSteps(project: Project, relief: Relief, mint: () => string) {
  const left: Relief["macros"][number][] = [];
  const steps = relief.macros.flatMap((lost): readonly Step[] => {
    const { from, to, ...place } = lost;
    const at = handAt(project, place, mint);
    const fits =
      at.ok && equal(at.value.chain.macros, to) && withoutLostTargets({ ...at.value.chain, macros: from }).lost === 0;
    if (fits) return setMacros(at.value.hand, from);
    left.push(lost);
    return [];
  });
  return { steps, left };
}

/**
 * The steps that put back what was relieved, each plugin at its place by now: behind the nearest of those that stood before it and still
 * do. What cannot be put back is said, and stays remembered where its place may come again. Laws: right behind the relief it gives the
 * project that was; where other things were changed meanwhile, those stay as they are.
 */
export function putBack(project: Project, relief: Relief, mint: () => string): PutBack {
  const back: RelievedPlugin[] = [];
  const left: Left[] = [];
  const steps: Step[] = [];
  let now = project;
  for (const plugin of relief.plugins) {
    const placed = placeOne(now, plugin, mint);
    if (placed.ok) {
      now = placed.value.project;
      steps.push(...placed.value.steps);
      back.push(plugin);
    } else left.push({ plugin, ...placed.error });
  }
  const macros = macroSteps(now, relief, mint);
  const still = left.filter(({ stays }) => stays).map(({ plugin }) => plugin);
  const to = still.length > 0 ? { ...relief, plugins: still, macros: macros.left } : null;
  const isOtherwise = !equal(to, relief);
  return {
    steps: [
      ...steps,
      ...macros.steps,
      ...(isOtherwise ? [{ id: mint(), kind: "setRelief" as const, relief: relief.id, from: relief, to }] : []),
    ],
    back,
    left,
    macrosLeft: macros.left.length,
  };
}
