import equal from "fast-deep-equal";
import { PART, type PartName } from "../strips/parts";
import type { Send } from "../strips/parts/sends";
import type { SavedStrip } from "../strips/strip";
import { type Placement, askedFor, isOn } from "./plan-places";
import type { Exception, PlanNote } from "./plan-shape";

/* Several things that are brought to one strip. */

interface Together {
  readonly placements: readonly Placement[];
  readonly notes: readonly PlanNote[];
}

/** Whether what it brings takes the place of what stands there; else it is put beside it, or sets only some of it. */
function takesPlace({ request }: Placement, part: PartName): boolean {
  if (part === "inserts") return request.mode === "replace" && !("slot" in request.targets);
  return part !== "sends" || (request.sends ?? "replace") === "replace";
}

/** Whether two that take places can both have theirs: plugins of two models, which stand beside each other. */
function bothFit({ request: { source: a } }: Placement, { request: { source: b } }: Placement): boolean {
  const [one, other] = [a.content, b.content];
  return one.kind === "plugin" && other.kind === "plugin" && one.processor.model !== other.processor.model;
}

/**
 * Of several that bring the same part to one strip the first gives it, and the others are told to be left out; sends come from all of
 * them, one to each bus. What is only added is not looked at here. So a second time there is nothing to do.
 */
export function bringTogether(placements: readonly Placement[], except: readonly Exception[]): Together {
  const notes: PlanNote[] = [];
  const givers = new Map<string, number[]>();
  const together: Placement[] = [];
  for (const placement of placements) {
    const { id, key, saved, request } = placement;
    let left = saved;
    for (const part of saved ? askedFor(saved, request) : []) {
      if (!takesPlace(placement, part) || !isOn(except, key, part)) continue;
      const cell = `${id} ${part}`;
      const before = givers.get(cell) ?? [];
      const giver = before.find((at) => !bothFit(together[at]!, placement));
      if (giver === undefined) {
        givers.set(cell, [...before, together.length]);
        continue;
      }
      left = left && without(left, part);
      const first = together[giver]!;
      if (part === "sends") together[giver] = withSends(first, saved?.sends ?? []);
      else {
        const text = `“${first.request.source.name}” gives it ${PART[part].phrase}; those of “${request.source.name}” are left out.`;
        notes.push({ strip: id, text });
      }
    }
    together.push({ ...placement, saved: left });
  }
  return { placements: together, notes };
}

const without = (saved: SavedStrip, part: PartName): SavedStrip => {
  const { [part]: _, ...rest } = saved;
  return rest;
};

/** With further sends, to buses that none of its own goes to. */
function withSends(placement: Placement, more: readonly Send[]): Placement {
  const own = placement.saved?.sends ?? [];
  const keys = new Set(own.map(({ key }) => key));
  const fresh = more
    .filter(({ to }) => !own.some((send) => equal(send.to, to)))
    .map((send) => ({ ...send, key: freeKey(send.key, keys) }));
  return placement.saved ? { ...placement, saved: { ...placement.saved, sends: [...own, ...fresh] } } : placement;
}

function freeKey(key: string, taken: Set<string>): string {
  let free = key;
  for (let n = 2; taken.has(free); n++) free = `${key} ${n}`;
  taken.add(free);
  return free;
}
