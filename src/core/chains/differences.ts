import equal from "fast-deep-equal";
import type { ParamId, Value } from "../processors/param-spec";
import { type Chain, type Processor, processorsOf } from "./chain";

/** One way in which a chain is not as it was saved. */
export type Difference =
  | {
      readonly kind: "value";
      readonly processor: string;
      readonly param: ParamId;
      readonly from: Value;
      readonly to: Value;
    }
  | { readonly kind: "enabled"; readonly processor: string; readonly from: boolean; readonly to: boolean }
  | { readonly kind: "added"; readonly processor: Processor }
  | { readonly kind: "removed"; readonly processor: Processor }
  | { readonly kind: "order" };

/** Pairs by key, then what is left by model in order. A processor whose model changed is another processor. */
function pairUp(saved: readonly Processor[], now: readonly Processor[]): Map<Processor, Processor> {
  const pairs = new Map<Processor, Processor>();
  const free = new Set(saved);
  const take = (p: Processor, match: (s: Processor) => boolean) => {
    const partner = [...free].find(match);
    if (!partner) return;
    free.delete(partner);
    pairs.set(p, partner);
  };
  for (const p of now) take(p, (s) => s.key === p.key && s.model === p.model);
  for (const p of now) if (!pairs.has(p)) take(p, (s) => s.model === p.model);
  return pairs;
}

function inProcessor(saved: Processor, now: Processor): Difference[] {
  const differences: Difference[] = [];
  if (saved.enabled !== now.enabled)
    differences.push({ kind: "enabled", processor: now.key, from: saved.enabled, to: now.enabled });
  for (const [param, to] of Object.entries(now.values)) {
    const from = saved.values[param];
    if (from !== undefined && !equal(from, to))
      differences.push({ kind: "value", processor: now.key, param, from, to });
  }
  return differences;
}

/** The saved processor that each one of the chain stands for, by the key that it has now. */
export const partnersOf = (saved: Chain, now: Chain): ReadonlyMap<string, Processor> =>
  new Map([...pairUp(processorsOf(saved), processorsOf(now))].map(([p, partner]) => [p.key, partner]));

/** All that a chain differs by from its saved state, in the order of the chain. `from` is saved, `to` is now. */
export function differencesOf(saved: Chain, now: Chain): readonly Difference[] {
  const before = processorsOf(saved);
  const after = processorsOf(now);
  const pairs = pairUp(before, after);
  const kept = new Set(pairs.values());
  const partners = after.flatMap((p) => pairs.get(p) ?? []);
  const moved = partners.some((p, at) => at > 0 && before.indexOf(p) < before.indexOf(partners[at - 1]!));
  return [
    ...after.flatMap((p): Difference[] => {
      const partner = pairs.get(p);
      return partner ? inProcessor(partner, p) : [{ kind: "added", processor: p }];
    }),
    ...before.filter((p) => !kept.has(p)).map((processor): Difference => ({ kind: "removed", processor })),
    ...(moved ? [{ kind: "order" } as const] : []),
  ];
}

/** "3 values", "1 plugin and 2 values"; "nothing" for no difference. */
export function describeDifferences(differences: readonly Difference[]): string {
  const count = (kinds: readonly Difference["kind"][]) => differences.filter((d) => kinds.includes(d.kind)).length;
  const plugins = count(["added", "removed"]);
  const values = count(["value", "enabled"]);
  const words = [
    plugins > 0 ? `${plugins} plugin${plugins === 1 ? "" : "s"}` : null,
    values > 0 ? `${values} value${values === 1 ? "" : "s"}` : null,
    count(["order"]) > 0 ? "the order" : null,
  ].filter((word) => word !== null);
  return words.length === 0 ? "nothing" : words.join(" and ");
}
