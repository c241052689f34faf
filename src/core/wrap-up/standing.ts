import type { Find } from "./finds";

/** A sound of the library, in one of its versions. */
export interface Sound {
  readonly preset: string;
  readonly name: string;
  readonly version: number;
}

/** How something of a project stands to the library. */
export type FindStanding =
  /** It is there as it is. */
  | ({ readonly is: "kept" } & Sound)
  /** What it came from is there, and differs: a version of that. `newest`: the last version that there is. */
  | ({ readonly is: "changed"; readonly newest: number } & Sound)
  /** Something is there that is nearly the same. */
  | ({ readonly is: "near"; readonly distance: number } & Sound)
  | { readonly is: "new" };

/** As far as this from what the library has, along the longest way of a value, it is nearly that. */
export const NEARLY = 0.03;

/** What is looked for of something in the library. */
export interface Answers {
  /** What has its fingerprint. */
  readonly same: Sound | null;
  /** What it came from, where that can have one more version. */
  readonly origin: (Sound & { readonly newest: number }) | null;
  readonly nearest: (Sound & { readonly distance: number }) | null;
}

/** Law: what is there as it is, is kept, whatever it came from; what came from something is a version of that before it is near to another. */
export function standingOf({ same, origin, nearest }: Answers): FindStanding {
  if (same) return { is: "kept", ...same };
  if (origin) return { is: "changed", ...origin };
  if (nearest && nearest.distance <= NEARLY) return { is: "near", ...nearest };
  return { is: "new" };
}

interface Standing extends Pick<Find, "key" | "level" | "place"> {
  readonly standing: FindStanding;
}

const isLoose = ({ standing: { is } }: Standing): boolean => is === "new" || is === "changed";

/**
 * What is proposed to be kept: of each strip the smallest thing that holds all that sounds in it, which is its chain, or its only
 * plugin; of one that plays the strip. What the library has, or nearly, is proposed nowhere.
 */
export function proposedAmong(finds: readonly Standing[]): ReadonlySet<string> {
  const ofStrip = new Map<string, Standing[]>();
  for (const find of finds) {
    const beside = ofStrip.get(find.place.strip);
    if (beside) beside.push(find);
    else ofStrip.set(find.place.strip, [find]);
  }
  const proposed = [...ofStrip.values()].flatMap((some) => {
    const plays = some.some(({ level, place }) => level === "plugin" && place.layer !== undefined);
    const whole =
      (plays ? some.find(({ level }) => level === "strip") : undefined) ??
      some.find(({ level, place }) => level === "chain" && place.layer === undefined) ??
      some.find(({ level }) => level === "plugin");
    return whole && isLoose(whole) ? [whole.key] : [];
  });
  return new Set(proposed);
}
