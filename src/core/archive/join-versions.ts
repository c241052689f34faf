/*
 * Versions of one preset that two machines have kept. Each is known by when it was saved and by what sounds in it, whatever number it
 * has; where both machines went on from the same one, their versions stand beside each other, in an order that both agree on.
 */

/** A version among those before it. `basedOn`: the number of the one that it was made of; null for the one before it. */
export interface Lineage {
  readonly version: number;
  readonly savedAt: string;
  readonly fingerprint: string;
  readonly basedOn: number | null;
}

export interface JoinedVersion {
  readonly version: number;
  readonly basedOn: number | null;
  /** Its number on this side; null where it is not there. */
  readonly own: number | null;
  readonly theirs: number | null;
}

interface Known {
  readonly key: string;
  /** null for one that was made of none. */
  readonly parent: string | null;
  readonly savedAt: string;
}

/** What each version is known by; one that is saved twice in the same instant is counted. */
function keysOf(versions: readonly Lineage[]): ReadonlyMap<number, string> {
  const met = new Map<string, number>();
  return new Map(
    versions.map(({ version, savedAt, fingerprint }) => {
      const key = `${savedAt} ${fingerprint}`;
      const times = met.get(key) ?? 0;
      met.set(key, times + 1);
      return [version, times === 0 ? key : `${key} ${times}`];
    }),
  );
}

function knownIn(versions: readonly Lineage[]): ReadonlyMap<string, Known & { readonly version: number }> {
  const keys = keysOf(versions);
  return new Map(
    versions.map(({ version, savedAt, basedOn }) => {
      const key = keys.get(version)!;
      return [key, { key, parent: keys.get(basedOn ?? version - 1) ?? null, savedAt, version }];
    }),
  );
}

const isBefore = (a: Known, b: Known): boolean => a.savedAt < b.savedAt || (a.savedAt === b.savedAt && a.key < b.key);

/** Each behind what it was made of; of those that could come next, the one that was saved first. */
function inOrder(all: ReadonlyMap<string, Known>): readonly Known[] {
  const waiting = new Map<string | null, Known[]>();
  for (const known of all.values()) {
    const parent = known.parent !== null && all.has(known.parent) ? known.parent : null;
    const beside = waiting.get(parent);
    if (beside) beside.push(known);
    else waiting.set(parent, [known]);
  }
  const order: Known[] = [];
  const ready = [...(waiting.get(null) ?? [])];
  while (ready.length > 0) {
    const next = ready.reduce((first, one) => (isBefore(one, first) ? one : first));
    ready.splice(ready.indexOf(next), 1);
    order.push(next);
    ready.push(...(waiting.get(next.key) ?? []));
  }
  return order;
}

/**
 * All versions that either side has, numbered from 1. Laws: from both sides it is the same list; with what it gave before it gives that
 * again; of three sides it does not matter which two meet first; what only went on keeps its numbers.
 */
export function joinVersions(own: readonly Lineage[], theirs: readonly Lineage[]): readonly JoinedVersion[] {
  const [here, there] = [knownIn(own), knownIn(theirs)];
  const order = inOrder(new Map<string, Known>([...there, ...here]));
  const numbers = new Map(order.map(({ key }, at) => [key, at + 1]));
  return order.map(({ key, parent }, at) => {
    const basedOn = parent === null ? at : (numbers.get(parent) ?? at);
    return {
      version: at + 1,
      basedOn: basedOn === at ? null : basedOn,
      own: here.get(key)?.version ?? null,
      theirs: there.get(key)?.version ?? null,
    };
  });
}

/** How what comes in stands to what is here. */
export type Standing = "new" | "same" | "newer" | "older" | "forked";

/** How versions that come in stand to those that are here. */
export function standingOfVersions(joined: readonly Pick<JoinedVersion, "own" | "theirs">[]): Exclude<Standing, "new"> {
  const [isOwn, isTheirs] = [joined.some(({ theirs }) => theirs === null), joined.some(({ own }) => own === null)];
  if (isOwn && isTheirs) return "forked";
  return isTheirs ? "newer" : isOwn ? "older" : "same";
}

/** From the numbers of one side to those of both together; only what is another by then. */
export function renumbering(joined: readonly JoinedVersion[], side: "own" | "theirs"): ReadonlyMap<number, number> {
  return new Map(
    joined.flatMap((one) => {
      const before = one[side];
      return before === null || before === one.version ? [] : [[before, one.version] as const];
    }),
  );
}
