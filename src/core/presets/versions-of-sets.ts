import { type Difference, differencesOf } from "../chains/differences";
import { type Chain, EMPTY_CHAIN } from "../chains/chain";
import { fold } from "../names/words";
import { type PartDifference, differentParts, withAims } from "../strips/strip";
import { type Content, type KeyedStrip, type Strips, chainOf, isStrips } from "./preset";

/* Two versions of a set: which strip of one is which of the other, and what differs between them. */

/**
 * Which strip of one version each of the next is, by the key of that one: the one with the same key, else one of the same kind and name.
 * Law: no strip is two of the other.
 */
function partnersIn(before: Strips, next: Strips): ReadonlyMap<string, KeyedStrip> {
  const free = new Map(before.strips.map((strip) => [strip.id, strip]));
  const partners = new Map<string, KeyedStrip>();
  const take = (strip: KeyedStrip, found: KeyedStrip | undefined) => {
    if (!found) return;
    partners.set(strip.id, found);
    free.delete(found.id);
  };
  for (const strip of next.strips) take(strip, free.get(strip.id));
  for (const strip of next.strips.filter(({ id }) => !partners.has(id)))
    take(
      strip,
      [...free.values()].find(({ kind, name }) => kind === strip.kind && fold(name) === fold(strip.name)),
    );
  return partners;
}

/**
 * The next version of a set: each strip goes by the key of the one that it follows, so that what came from an earlier version finds its
 * strip again. All else stays. Laws: as many strips under as many keys; what led from one to another still does.
 */
export function followingKeys<S extends Strips>(before: Strips, next: S): S {
  const partners = partnersIn(before, next);
  const keyOf = (id: string): string => partners.get(id)?.id ?? id;
  return {
    ...next,
    strips: next.strips.map((strip) => ({
      ...withAims(strip, (ref) => ("strip" in ref ? { strip: keyOf(ref.strip) } : ref)),
      id: keyOf(strip.id),
    })),
  };
}

/** What differs between two sounds, or between one strip of each. */
export interface Beside {
  /** The name of the strip; null where there is only one. */
  readonly strip: string | null;
  /** The side that has no such strip; then nothing else is said of it. */
  readonly missing: "left" | "right" | null;
  readonly differences: readonly Difference[];
  /** Parts beside its chain. */
  readonly parts: readonly PartDifference[];
  /** The chain on the right, by which differences are told. */
  readonly chain: Chain;
}

const chainsBeside = (strip: string | null, left: Chain, right: Chain): Omit<Beside, "parts"> => ({
  strip,
  missing: null,
  differences: differencesOf(left, right),
  chain: right,
});

const missingFrom = (missing: "left" | "right", { name }: KeyedStrip): Beside => ({
  strip: name,
  missing,
  differences: [],
  parts: [],
  chain: EMPTY_CHAIN,
});

const besideChain = (parts: readonly PartDifference[]): readonly PartDifference[] =>
  parts.filter(({ part }) => part !== "inserts");

/** Two sounds beside each other; of sets strip by strip, those of the left in its order, then those that are only on the right. */
export function compareContents(left: Content, right: Content): readonly Beside[] {
  if (!isStrips(left) || !isStrips(right)) {
    const parts = left.kind === "strip" && right.kind === "strip" ? differentParts(left.strip, right.strip) : [];
    return [{ ...chainsBeside(null, chainOf(left), chainOf(right)), parts: besideChain(parts) }];
  }
  // Where the strips of both go by the same keys, the same leads to the same.
  const followed = followingKeys(left, right);
  const rights = new Map(followed.strips.map((strip) => [strip.id, strip]));
  const lefts = new Set(left.strips.map(({ id }) => id));
  return [
    ...left.strips.map((strip): Beside => {
      const other = rights.get(strip.id);
      if (!other) return missingFrom("right", strip);
      const chains = chainsBeside(strip.name, strip.inserts ?? EMPTY_CHAIN, other.inserts ?? EMPTY_CHAIN);
      return { ...chains, parts: besideChain(differentParts(strip, other)) };
    }),
    ...followed.strips.filter(({ id }) => !lefts.has(id)).map((strip) => missingFrom("left", strip)),
  ];
}
