import { type Face, type Likeness, known, likeness } from "./alike";
import { assign } from "./assign";

/** Below this two strips are not taken for one; above the second it is hardly to be doubted. */
const ENOUGH = 0.45;
const SURE = 0.8;

export interface Match {
  /** The strip of the set. */
  readonly saved: string;
  /** The strip here that it goes to; null where none is like it. */
  readonly strip: string | null;
  readonly reason: string;
  /** 0 to 1. */
  readonly confidence: number;
}

/** In words: how far a match can be trusted. */
export const describeConfidence = (confidence: number): "sure" | "likely" | "a guess" =>
  confidence >= SURE ? "sure" : confidence >= 0.6 ? "likely" : "a guess";

/** So much a pair that stands in the same order counts: of two that are as like, the earlier goes to the earlier. */
const ORDER = 0.01;

/**
 * Which strip of a project each strip of a set goes to: the best for all of them together, each strip once. Where nothing is like
 * enough, none. The same for the same strips, in whatever order they are looked at.
 */
export function matchStrips(saved: readonly Face[], here: readonly Face[]): readonly Match[] {
  const [set, project] = [saved.map(known), here.map(known)];
  const likes: (Likeness | null)[][] = set.map((one) => project.map((other) => likeness(one, other)));
  const place = (at: number, of: number) => (of <= 1 ? 0 : at / (of - 1));
  // Beyond the strips that are here each of the set has a place of its own where it goes to none.
  const costs = likes.map((row, at) => [
    ...row.map((like, there) =>
      like === null || like.score < ENOUGH
        ? 2
        : 1 - like.score + ORDER * Math.abs(place(at, set.length) - place(there, project.length)),
    ),
    ...set.map((_, other) => (other === at ? 1 - ENOUGH + ORDER : 2)),
  ]);
  const found = set.length === 0 ? [] : assign(costs);
  return set.map(({ id }, at) => {
    const column = found[at]!;
    const like = likes[at]?.[column];
    return like && like.score >= ENOUGH
      ? { saved: id, strip: project[column]!.id, reason: like.reason, confidence: like.score }
      : { saved: id, strip: null, reason: "nothing here is like it", confidence: 0 };
  });
}
