import { z } from "zod";
import { type Result, fail, ok } from "../result";
import { type Chain, type ChainNode, EMPTY_CHAIN, type Macro } from "./chain";
import { completeChain } from "./complete";
import { findChainProblem } from "./problems";
import { retargeted, withoutLostTargets } from "./macros";
import { ChainSchema, MacrosSchema } from "./schema";
import { findNode, keysIn, rekeyed } from "./tree";

/** A stretch of a chain as text: what the clipboard carries, names and origins included. */
const ClippingSchema = z.strictObject({
  diathesis: z.literal("clipping"),
  version: z.literal(1),
  nodes: ChainSchema.shape.nodes,
  macros: MacrosSchema,
});

export interface Clipping {
  readonly nodes: readonly ChainNode[];
  /** Those that move something in it, aimed at that only. */
  readonly macros: readonly Macro[];
}

/** Some nodes of a chain, in its order, none of them within another of them. */
export function clip(chain: Chain, keys: readonly string[]): Clipping {
  const wanted = keys.map((key) => findNode(chain, key)?.node).filter((node) => node !== undefined);
  const inside = new Set(wanted.flatMap((node) => keysIn(node).slice(1)));
  const nodes = wanted.filter((node) => !inside.has(node.key));
  const { macros } = withoutLostTargets({ nodes: [...nodes], macros: chain.macros });
  return { nodes, macros: macros.filter((macro) => macro.axes.some((targets) => targets.length > 0)) };
}

export const writeClipping = ({ nodes, macros }: Clipping): string =>
  JSON.stringify({ diathesis: "clipping", version: 1, nodes, macros });

/** The error is a sentence; null stands for text that is no clipping at all, which is nobody's fault. */
export function parseClipping(text: string): Result<Clipping, string | null> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return fail(null);
  }
  if (typeof json !== "object" || json === null || !("diathesis" in json)) return fail(null);
  const parsed = ClippingSchema.safeParse(json);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return fail(`What was copied cannot be read at ${issue?.path.join(".") || "its beginning"}.`);
  }
  const chain: Chain = { ...EMPTY_CHAIN, nodes: parsed.data.nodes, macros: parsed.data.macros };
  const problem = findChainProblem(chain, "clipping");
  return problem ? fail(`What was copied does not fit: ${problem.message}`) : ok(completeChain(chain));
}

/** The same under new keys, so that it can stand beside what it was copied from. */
export function freshClipping({ nodes, macros }: Clipping, mint: () => string): Clipping {
  const keys = new Map<string, string>();
  const copies = nodes.map((node) => {
    const copy = rekeyed(node, mint);
    for (const [from, to] of copy.keys) keys.set(from, to);
    return copy.node;
  });
  return {
    nodes: copies,
    macros: macros.map((macro) => ({ ...retargeted(macro, keys), key: mint() })),
  };
}
