import type { Card } from "../presets/preset";
import type { Project } from "../projects/project";
import type { Strip } from "../strips/strip";
import type { Find } from "./finds";
import type { FindStanding, Sound } from "./standing";
import type { Work } from "./work";

/* What several projects have to be kept: what sounds the same in more than one of them is one thing, with all its places. */

/** How the sounds of a strip would be filed, without a name. */
export type FiledAs = Pick<Card, "folder" | "purpose" | "tags" | "origin">;

/** Something that was found in a project, as it stands to the library. */
export interface Found {
  readonly project: Pick<Project, "id" | "name" | "tempo">;
  readonly strip: Pick<Strip, "id" | "kind" | "look">;
  readonly find: Find;
  readonly fingerprint: string;
  readonly standing: FindStanding;
  readonly nearest: (Sound & { readonly distance: number }) | null;
  readonly work: Work;
  /** 0 to 4. */
  readonly weight: number;
  /** It stands in no chain that stands there too. */
  readonly isAlone: boolean;
  readonly isProposed: boolean;
  readonly wasLeft: boolean;
  readonly card: FiledAs;
}

/** The same sound wherever it was found. It goes by the first of its places. */
export interface FoundOnce extends Found {
  readonly id: string;
  readonly places: readonly Found[];
}

/** What can go on as a version of what it came from is told so, wherever else it stands. */
const RANK: Record<FindStanding["is"], number> = { changed: 0, near: 1, new: 2, kept: 3 };

const idOf = ({ find, fingerprint }: Found): string => `${find.level} ${fingerprint}`;

/**
 * Each sound once, what is proposed first, and the one with the most work first. Laws: each find is a place of exactly one; a sound is
 * proposed where it is in any place, and was passed over where it was in all.
 */
export function onceEach(all: readonly Found[]): readonly FoundOnce[] {
  const byId = new Map<string, Found[]>();
  for (const one of all) {
    const id = idOf(one);
    const beside = byId.get(id);
    if (beside) beside.push(one);
    else byId.set(id, [one]);
  }
  return [...byId]
    .map(([id, some]): FoundOnce => {
      const places = some.toSorted((a, b) => RANK[a.standing.is] - RANK[b.standing.is] || b.weight - a.weight);
      return {
        ...places[0]!,
        id,
        places,
        weight: Math.max(...places.map(({ weight }) => weight)),
        isProposed: places.some(({ isProposed }) => isProposed),
        wasLeft: places.every(({ wasLeft }) => wasLeft),
      };
    })
    .toSorted((a, b) => Number(b.isProposed) - Number(a.isProposed) || b.weight - a.weight);
}
