import { lineageOf } from "@/core/archive/documents";
import {
  type JoinedVersion,
  type Lineage,
  joinVersions,
  renumbering,
  standingOfVersions,
} from "@/core/archive/join-versions";
import type { NewNumbers } from "@/core/archive/renumber";
import { findOwn } from "../../repositories/filed-presets";
import type { Bringing } from "./bringing";
import { takingTurns } from "../../turns";

/** The last version that both have on the way to one of theirs. */
function commonBefore(theirs: readonly Lineage[], joined: readonly JoinedVersion[], number: number): number {
  const own = new Map(
    joined.flatMap(({ own: here, theirs: there }) => (here && there ? [[there, here] as const] : [])),
  );
  for (let at = number; at > 0; at = theirs[at - 1]!.basedOn ?? at - 1) {
    const here = own.get(at);
    if (here !== undefined) return here;
  }
  return 1;
}

/**
 * The new numbers of their versions, for every preset that is here, too. What is left out is mentioned by the last version that both
 * have: what goes by it is still known to have come from it.
 */
export async function numbersOf({
  statement,
  incoming,
  items,
  choices,
}: Pick<Bringing, "statement" | "incoming" | "items" | "choices">): Promise<NewNumbers> {
  const theirs = new Map<string, ReadonlyMap<number, number>>();
  // Only where both sides went on is any number another: what was compared beforehand says where.
  const forked = [...items.values()].filter(({ kind, standing }) => kind === "preset" && standing === "forked");
  if (forked.length === 0) return theirs;
  const turn = takingTurns();
  for await (const { document } of incoming.presets()) {
    await turn();
    if (!document.ok) continue;
    const { id } = document.value;
    const own = findOwn(statement, id);
    if (!own || own.pack !== null) continue;
    const lineage = lineageOf(document.value);
    const joined = joinVersions(own.versions, lineage);
    const standing = standingOfVersions(joined);
    const item = items.get(`preset:${id}`);
    const isLeft = item !== undefined && (choices.items[item.key] ?? choices.groups[item.standing]) === "leave";
    const numbers =
      isLeft && standing !== "older"
        ? new Map(lineage.map(({ version }) => [version, commonBefore(lineage, joined, version)] as const))
        : renumbering(joined, "theirs");
    if (numbers.size > 0) theirs.set(id, numbers);
  }
  return theirs;
}
