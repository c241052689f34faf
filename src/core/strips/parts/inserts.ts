import { counted } from "../../names/count";
import type { Chain, StripRef } from "../../chains/chain";
import { EMPTY_CHAIN } from "../../chains/chain";
import { completeChain } from "../../chains/complete";
import { fromsOf, mapProcessors, processorsOf } from "../../chains/tree";
import type { StripKind } from "../../documents/strip-kinds";
import { type AimQuestion, part } from "./part";

const plugins = (count: number): string => (count === 0 ? "no plugins" : counted(count, "plugin"));

/** Strips that open or turn down a plugin of a chain. */
export const keysOf = (chain: Chain): readonly StripRef[] =>
  processorsOf(chain).flatMap(({ keyInput }) => (keyInput && "strip" in keyInput ? [keyInput.strip] : []));

/** A chain that is keyed by other strips; a plugin for whose key there is none hears itself again. */
export const rekeyedBy = (chain: Chain, aim: (ref: StripRef) => StripRef | null): Chain =>
  mapProcessors(chain, (processor) => {
    const { keyInput, ...rest } = processor;
    if (!keyInput || !("strip" in keyInput)) return processor;
    const strip = aim(keyInput.strip);
    return strip ? { ...rest, keyInput: { ...keyInput, strip } } : rest;
  });

/** "replace 2 plugins by 4 of Wood and rosin". */
export function describeInserts(from: Chain, to: Chain): string {
  const [before, after] = [processorsOf(from).length, processorsOf(to).length];
  const name = to.from ? ` of ${to.from.name}` : "";
  if (before + after === 0) return to.from ? `no plugins, as in ${to.from.name}` : "no plugins, of no preset any more";
  if (before === 0) return `put in ${plugins(after)}${name}`;
  if (after === 0) return `take out ${plugins(before)}`;
  return `replace ${plugins(before)} by ${after}${name}`;
}

/** What carries sound can be heard. */
export const canBeHeard = (kind: StripKind): boolean => kind !== "folder";

/** Asked where a strip that keys plugins is not here. */
export const KEY_QUESTION: AimQuestion = {
  of: "all",
  text: (missing) => `“${missing}” is missing here, and plugins are keyed by it.`,
  leave: "Keep its name; until then they hear themselves",
  keepsName: true,
  makes: () => false,
};

export const INSERTS = part<Chain>({
  title: "Inserts",
  phrase: "the inserts",
  empty: () => EMPTY_CHAIN,
  words: (chain) => plugins(processorsOf(chain).length),
  change: describeInserts,
  aims: {
    way: "in",
    leads: "is keyed by",
    at: () => "",
    of: keysOf,
    mapped: rekeyedBy,
    takes: canBeHeard,
    whenNone: "leftOut",
    question: KEY_QUESTION,
  },
  presets: fromsOf,
  complete: completeChain,
});
