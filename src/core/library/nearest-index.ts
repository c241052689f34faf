import type { Nearness } from "./near-copies";
import type { Point } from "./near-join";

/** One that was found, and how far it is, 0 to 1. */
export interface Near {
  readonly id: string;
  readonly distance: number;
}

interface Alike {
  readonly ids: string[];
  readonly points: Point[];
}

const placeOf = ({ outline, exact }: Pick<Nearness, "outline" | "exact">): string => `${outline}\n${exact}`;

/** The longest way between two values of two points; Infinity as soon as it is longer than `most`. */
function longestWay(a: Point, b: Point, most: number): number {
  let longest = 0;
  for (let i = 0; i < a.length; i++) {
    const way = Math.abs(a[i]! - b[i]!);
    if (way > longest) longest = way;
    if (longest > most) return Number.POSITIVE_INFINITY;
  }
  return longest;
}

/**
 * Sounds by where they stand, so that the nearest of another is found among those that have the same plugins and the same switches.
 * Law: what is found is as far as `distanceBetween` says, and none that it holds is nearer.
 */
export class NearestIndex {
  private readonly groups = new Map<string, Alike>();
  private readonly places = new Map<string, string>();

  get size(): number {
    return this.places.size;
  }

  put(one: Nearness): void {
    this.remove(one.id);
    const place = placeOf(one);
    const group = this.groups.get(place) ?? { ids: [], points: [] };
    this.groups.set(place, group);
    group.ids.push(one.id);
    group.points.push(one.point);
    this.places.set(one.id, place);
  }

  remove(id: string): void {
    const place = this.places.get(id);
    const group = place === undefined ? undefined : this.groups.get(place);
    if (place === undefined || !group) return;
    this.places.delete(id);
    const at = group.ids.indexOf(id);
    const [lastId, lastPoint] = [group.ids.pop(), group.points.pop()];
    if (at < group.ids.length && lastId !== undefined && lastPoint) {
      group.ids[at] = lastId;
      group.points[at] = lastPoint;
    }
    if (group.ids.length === 0) this.groups.delete(place);
  }

  /** The nearest of those that are no further than `within`; of several as near, any. null where there is none. */
  nearest({ outline, exact, point }: Pick<Nearness, "outline" | "exact" | "point">, within: number): Near | null {
    const group = this.groups.get(placeOf({ outline, exact }));
    let [best, found] = [within, -1];
    for (let at = 0; group && at < group.points.length; at++) {
      const distance = longestWay(group.points[at]!, point, best);
      if (distance > best || (found >= 0 && distance === best)) continue;
      [best, found] = [distance, at];
      if (best === 0) break;
    }
    const id = group?.ids[found];
    return id === undefined ? null : { id, distance: best };
  }
}
