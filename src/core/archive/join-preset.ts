import equal from "fast-deep-equal";
import { foldersOf } from "../library/filed-in";
import { besideOf } from "../packs/pack";
import type { Card } from "../presets/preset";
import { type FiledPreset, lineageOf } from "./documents";
import { type JoinedVersion, type Lineage, type Standing, joinVersions, standingOfVersions } from "./join-versions";
import { saidBy } from "./said";

/** How a preset is filed, and since when. */
export interface Filing {
  readonly card: Card;
  readonly filedAt: string;
  readonly isBinned: boolean;
  readonly mergedInto: string | null;
  /** The names of its versions, by when each was saved. */
  readonly versionNames: Readonly<Record<string, string>>;
}

/** A preset that is here, as far as another is held against it. */
export interface OwnPreset extends Filing {
  readonly id: string;
  readonly pack: string | null;
  readonly usedAt: string | null;
  readonly versions: readonly Lineage[];
}

export interface JoinedPreset {
  readonly standing: Exclude<Standing, "new">;
  readonly versions: readonly JoinedVersion[];
  /** How the way it is filed there stands to the way it is filed here. */
  readonly filed: "same" | "newer" | "older";
}

/** What of it is compared: of what belongs to a pack only what the person set beside it. */
const comparable = ({ card, isBinned, mergedInto, versionNames }: Filing, isOfPack: boolean): unknown =>
  isOfPack ? besideOf(card) : { card, isBinned, mergedInto, versionNames };

/** What was filed later stands; in the same instant, either, but the same from both sides. */
function compareFiled(own: OwnPreset, theirs: Filing): JoinedPreset["filed"] {
  const [here, there] = [own, theirs].map((one) => comparable(one, own.pack !== null));
  if (equal(here, there)) return "same";
  if (theirs.filedAt !== own.filedAt) return theirs.filedAt > own.filedAt ? "newer" : "older";
  return saidBy(there) > saidBy(here) ? "newer" : "older";
}

/** A preset that comes in, held against the one of its id. What belongs to a pack sounds as the pack here says. */
export function joinPreset(own: OwnPreset, theirs: FiledPreset, filing: Filing): JoinedPreset {
  const versions = own.pack === null ? joinVersions(own.versions, lineageOf(theirs)) : [];
  const [sounds, filed] = [standingOfVersions(versions), compareFiled(own, filing)];
  const standing = sounds === "same" || (sounds === "older" && filed === "newer") ? filed : sounds;
  return { standing, versions, filed };
}

/** How a preset of a file is filed, in the folders that are one with those here. */
export function filingOf(theirs: FiledPreset, folderOf: (id: string) => string | null): Filing {
  const { card, filedAt, binnedAt, mergedInto, versions } = theirs;
  const named = versions.flatMap(({ savedAt, name }) => (name === null ? [] : [[savedAt, name] as const]));
  return {
    card: refiled(card, folderOf),
    filedAt,
    isBinned: binnedAt !== null && mergedInto === null,
    mergedInto,
    versionNames: Object.fromEntries(named),
  };
}

/** A card in other folders; one that lies in none of them any more lies in none. */
export function refiled(card: Card, folderOf: (id: string) => string | null): Card {
  const { alsoIn: _, ...alone } = card;
  const [home = null, ...others] = new Set(
    foldersOf(card).flatMap((id) => {
      const folder = folderOf(id);
      return folder === null ? [] : [folder];
    }),
  );
  return { ...alone, folder: home, ...(others.length > 0 ? { alsoIn: others } : {}) };
}
