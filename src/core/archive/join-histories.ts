import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import type { Standing } from "./join-versions";

/** A change in the past of a project, as far as it says which one it is. */
export interface Mark {
  readonly n: number;
  readonly at: string;
  readonly label: string;
  readonly window: string | null;
}

export interface JoinedHistories {
  readonly standing: Exclude<Standing, "new">;
  /** How many changes both have in common. */
  readonly common: number;
  /** Of two that went their own ways, which keeps the project's id: the one that set out first. */
  readonly trunk: "own" | "theirs";
  /** The id of the other one, the same on every machine. */
  readonly aside: string;
}

const textOf = ({ n, at, label, window }: Mark): string => JSON.stringify([at, n, label, window]);

/** 16 letters, of which no two branches of any project have the same. */
const idOf = (project: string, first: Mark): string =>
  `b${bytesToHex(sha256(utf8ToBytes(`${project} ${textOf(first)}`))).slice(0, 15)}`;

/**
 * Two pasts of one project. Laws: from both sides it is the same; a branch has the same id however far it has gone, on whichever side.
 */
export function joinHistories(project: string, own: readonly Mark[], theirs: readonly Mark[]): JoinedHistories {
  let common = 0;
  while (common < own.length && common < theirs.length && textOf(own[common]!) === textOf(theirs[common]!)) common++;
  const [here, there] = [own[common], theirs[common]];
  if (!here || !there) {
    const standing = here ? "older" : there ? "newer" : "same";
    return { standing, common, trunk: here ? "own" : "theirs", aside: project };
  }
  const isOwnFirst = textOf(here) < textOf(there);
  return {
    standing: "forked",
    common,
    trunk: isOwnFirst ? "own" : "theirs",
    aside: idOf(project, isOwnFirst ? there : here),
  };
}
