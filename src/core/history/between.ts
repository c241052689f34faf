import equal from "fast-deep-equal";
import { DETAILS, type Details } from "../projects/details";
import { type Project, stripsById } from "../projects/project";
import { findRelief, reliefsOf } from "../projects/reliefs";
import { startOrder } from "../recall/arrange/order";
import { changePart } from "../recall/arrange/change-part";
import type { Step } from "../recall/steps";
import { PARTS } from "../strips/parts";
import type { Strip } from "../strips/strip";

/** Two moments of one project. */
interface Moments {
  readonly now: Project;
  readonly then: Project;
}

/**
 * The steps from one moment of a project to another: what is said of it, the strips that go, those that come or stand elsewhere, the
 * parts of those that stay, and what can be put back; the mixes and views that are kept stay those of `now`. Laws: applied to `now` they give `then`; what is alike stays the same object; a strip that is
 * alike and stands between the same others has no step.
 */
export function stepsBetween({ now, then }: Moments, mint: () => string): readonly Step[] {
  return [...detailSteps({ now, then }, mint), ...stripSteps({ now, then }, mint), ...reliefSteps({ now, then }, mint)];
}

function reliefSteps({ now, then }: Moments, mint: () => string): readonly Step[] {
  const ids = new Set([...reliefsOf(now), ...reliefsOf(then)].map(({ id }) => id));
  return [...ids].flatMap((relief): readonly Step[] => {
    const [from, to] = [findRelief(now, relief), findRelief(then, relief)];
    return equal(from, to) ? [] : [{ id: mint(), kind: "setRelief", relief, from, to }];
  });
}

const detailSteps = ({ now, then }: Moments, mint: () => string): readonly Step[] =>
  DETAILS.filter((detail) => !equal(now[detail], then[detail])).map((detail) =>
    detailStep(detail, { now, then }, mint),
  );

const detailStep = <D extends keyof Details>(detail: D, { now, then }: Moments, mint: () => string): Step =>
  ({ id: mint(), kind: "setDetail", detail, from: now[detail], to: then[detail] }) as Step;

function stripSteps({ now, then }: Moments, mint: () => string): readonly Step[] {
  const [before, after] = [stripsById(now), stripsById(then)];
  // One of another kind under the same id is another strip.
  const stays = ({ id, kind }: Strip) => before.get(id)?.kind === kind && after.get(id)?.kind === kind;
  const order = startOrder(now.strips, mint);
  for (const strip of now.strips) if (!stays(strip)) order.remove(strip.id);
  const still = inPlace(
    order.strips.map(({ id }) => id),
    then.strips.filter(stays).map(({ id }) => id),
  );
  for (const [at, strip] of then.strips.entries())
    if (!still.has(strip.id))
      order.place(stays(strip) ? before.get(strip.id)! : strip, then.strips[at - 1]?.id ?? null);
  const parts = then.strips
    .filter(stays)
    .flatMap((strip) => PARTS.flatMap((part) => changePart(before.get(strip.id)!, part, strip[part], mint)));
  return [...order.steps, ...parts];
}

/**
 * The most of some things that can stay where they are while the others are put into another order: the longest run that both orders
 * have in common (Fredman 1975, "On computing the length of longest increasing subsequences"). `now`, `then`: the same things.
 */
export function inPlace(now: readonly string[], then: readonly string[]): ReadonlySet<string> {
  const placeOf = new Map(now.map((id, at) => [id, at]));
  const places = then.map((id) => placeOf.get(id)!);
  /** Of the runs of each length, the end of the one that ends soonest, and what comes before each end. */
  const ends: number[] = [];
  const previous: number[] = [];
  for (const [at, place] of places.entries()) {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (places[ends[middle]!]! < place) low = middle + 1;
      else high = middle;
    }
    previous[at] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = at;
  }
  const still = new Set<string>();
  for (let at = ends.at(-1) ?? -1; at >= 0; at = previous[at]!) still.add(then[at]!);
  return still;
}
