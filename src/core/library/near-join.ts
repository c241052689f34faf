/*
 * Which of many points are joined by steps no longer than `within` from one to the next, where a step is as long as the
 * longest way along one axis (the Chebyshev distance). A tree of boxes halves the points along the axes that tell most of
 * them apart, each until no box is wider than `within`, so that only neighbours are compared: the idea of k-d trees (J. L.
 * Bentley, 1975) walked two boxes at a time. Boxes that are apart are passed over, and so are boxes of which all is joined
 * already; boxes that lie within `within` together are joined without a look at their points.
 */

export type Point = Float64Array;

/** Sets of numbers that are united pair by pair (R. E. Tarjan, 1975). */
export class Unions {
  private readonly above: Int32Array;

  constructor(count: number) {
    this.above = Int32Array.from({ length: count }, (_, n) => n);
  }

  of(one: number): number {
    const { above } = this;
    let at = one;
    while (above[at] !== at) {
      above[at] = above[above[at]!]!;
      at = above[at]!;
    }
    return at;
  }

  unite(a: number, b: number): void {
    this.above[this.of(a)] = this.of(b);
  }
}

/** Whether two may not be joined directly. */
export interface Apart {
  /** Whether there is anything that one may not be joined with. */
  readonly has: (one: number) => boolean;
  readonly are: (a: number, b: number) => boolean;
}

interface Box {
  readonly from: number;
  readonly to: number;
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly halves: readonly [Box, Box] | null;
  /** All of its points are in one set. */
  isOne: boolean;
}

/** Points of a box that is not halved any further. */
const LEAF = 16;

/** Joins all of some numbers, but for pairs that are to stay apart. */
export function joinAll(numbers: readonly number[], unions: Unions, apart: Apart): void {
  const free = numbers.find((n) => !apart.has(n));
  const bound: number[] = [];
  for (const n of numbers) {
    if (free !== undefined) unions.unite(n, free);
    else {
      for (const other of bound) if (!apart.are(n, other)) unions.unite(n, other);
      bound.push(n);
    }
  }
}

interface Reach {
  readonly within: number;
  readonly unions: Unions;
  readonly apart: Apart;
  /** Hears of how many more have been looked at. */
  readonly onJoined?: (count: number) => void;
}

/** Unites the numbers of points that are within reach of each other. All points have the same number of axes. */
export const joinNear = (points: readonly Point[], numbers: readonly number[], reach: Reach): void =>
  new Join(points, numbers, reach).run();

class Join {
  private readonly axes: number;
  private readonly byVariety: readonly number[];
  /** Points as they stand in the boxes. */
  private readonly order: Int32Array;

  constructor(
    private readonly points: readonly Point[],
    private readonly numbers: readonly number[],
    private readonly reach: Reach,
  ) {
    this.axes = points[0]?.length ?? 0;
    this.byVariety = axesByVariety(points, this.axes, reach.within);
    this.order = Int32Array.from(points.keys());
  }

  run(): void {
    this.join(this.boxOf(0, this.order.length));
  }

  private at(i: number): Point {
    return this.points[this.order[i]!]!;
  }

  private number(i: number): number {
    return this.numbers[this.order[i]!]!;
  }

  private set(i: number): number {
    return this.reach.unions.of(this.number(i));
  }

  private boxOf(from: number, to: number): Box {
    const low = new Float64Array(this.axes).fill(Number.POSITIVE_INFINITY);
    const high = new Float64Array(this.axes).fill(Number.NEGATIVE_INFINITY);
    for (let i = from; i < to; i++) {
      const point = this.at(i);
      for (let axis = 0; axis < this.axes; axis++) {
        low[axis] = Math.min(low[axis]!, point[axis]!);
        high[axis] = Math.max(high[axis]!, point[axis]!);
      }
    }
    const isWide = (axis: number) => high[axis]! - low[axis]! > this.reach.within;
    const wide = to - from > LEAF ? this.byVariety.find(isWide) : undefined;
    if (wide === undefined) return { from, to, low, high, halves: null, isOne: false };
    this.order.subarray(from, to).sort((a, b) => this.points[a]![wide]! - this.points[b]![wide]!);
    const middle = (from + to) >> 1;
    return { from, to, low, high, halves: [this.boxOf(from, middle), this.boxOf(middle, to)], isOne: false };
  }

  private join(box: Box): void {
    if (box.halves) {
      const [one, other] = box.halves;
      this.join(one);
      this.join(other);
      this.cross(one, other);
    } else {
      if (this.isNarrow(box, box)) this.joinBoxes(box);
      else for (let i = box.from; i < box.to; i++) for (let j = box.from; j < i; j++) this.touch(i, j);
      this.reach.onJoined?.(box.to - box.from);
    }
    box.isOne = this.isUnited(box);
  }

  private cross(a: Box, b: Box): void {
    if (this.isFar(a, b) || this.isJoined(a, b)) return;
    if (this.isNarrow(a, b)) return this.joinBoxes(a, b);
    const [larger, smaller] = a.to - a.from >= b.to - b.from ? [a, b] : [b, a];
    const [halved, other] = larger.halves ? [larger, smaller] : [smaller, larger];
    if (halved.halves) for (const half of halved.halves) this.cross(half, other);
    else for (let i = a.from; i < a.to; i++) for (let j = b.from; j < b.to; j++) this.touch(i, j);
  }

  private touch(i: number, j: number): void {
    const { within, apart, unions } = this.reach;
    const [p, q] = [this.at(i), this.at(j)];
    for (const axis of this.byVariety) if (Math.abs(p[axis]! - q[axis]!) > within) return;
    if (!apart.are(this.number(i), this.number(j))) unions.unite(this.number(i), this.number(j));
  }

  private joinBoxes(...boxes: readonly Box[]): void {
    const numbers = boxes.flatMap(({ from, to }) =>
      Array.from(this.order.subarray(from, to), (point) => this.numbers[point]!),
    );
    joinAll(numbers, this.reach.unions, this.reach.apart);
  }

  private isUnited({ from, to, halves }: Box): boolean {
    if (halves) return this.isJoined(...halves);
    const set = this.set(from);
    for (let i = from + 1; i < to; i++) if (this.set(i) !== set) return false;
    return true;
  }

  private isJoined(a: Box, b: Box): boolean {
    return a.isOne && b.isOne && this.set(a.from) === this.set(b.from);
  }

  private isFar(a: Box, b: Box): boolean {
    const { within } = this.reach;
    return this.byVariety.some(
      (axis) => a.low[axis]! - b.high[axis]! > within || b.low[axis]! - a.high[axis]! > within,
    );
  }

  private isNarrow(a: Box, b: Box): boolean {
    return this.byVariety.every(
      (axis) => Math.max(a.high[axis]!, b.high[axis]!) - Math.min(a.low[axis]!, b.low[axis]!) <= this.reach.within,
    );
  }
}

/** Axes, those first along which the most of some points can be told apart. */
function axesByVariety(points: readonly Point[], axes: number, within: number): readonly number[] {
  const SAMPLE = 1000;
  const every = Math.max(1, Math.floor(points.length / SAMPLE));
  const some = points.filter((_, n) => n % every === 0);
  const cell = Math.max(within, 1e-6);
  const variety = Array.from({ length: axes }, (_, axis) => new Set(some.map((p) => Math.floor(p[axis]! / cell))).size);
  return [...variety.keys()].toSorted((a, b) => variety[b]! - variety[a]!);
}
