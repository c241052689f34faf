"use client";

import { useState } from "react";
import type { Chain, ChainNode } from "@/core/chains/chain";
import { findNode, nodesIn, processorsOf } from "@/core/chains/tree";

export type Choose = "only" | "also" | "upTo";

export interface Choice {
  /** The node whose editor is open. */
  readonly selected: ChainNode | null;
  /** What the next action is for, in the order of the chain. */
  readonly chosen: readonly string[];
  readonly select: (key: string | null, how?: Choose) => void;
}

/** All from one to the other, both among them. */
function between(order: readonly string[], a: string, b: string): readonly string[] {
  const [from = 0, to = 0] = [order.indexOf(a), order.indexOf(b)].toSorted((x, y) => x - y);
  return order.slice(from, to + 1);
}

/** The open node, the first plugin where none is or where it is gone, and what else is chosen beside it. */
export function useChoice(chain: Chain): Choice {
  const [selectedKey, setSelected] = useState<string | null>(null);
  const [others, setOthers] = useState<readonly string[]>([]);
  const order = nodesIn(chain.nodes).map((node) => node.key);
  const selected = (selectedKey === null ? null : findNode(chain, selectedKey)?.node) ?? processorsOf(chain)[0] ?? null;
  const chosen = order.filter((key) => key === selected?.key || others.includes(key));
  const leave = (key: string) => {
    const rest = chosen.filter((k) => k !== key);
    setOthers(rest);
    if (selected?.key === key) setSelected(rest[0] ?? null);
  };
  const select: Choice["select"] = (key, how = "only") => {
    if (key !== null && how === "also" && chosen.includes(key) && chosen.length > 1) return leave(key);
    const upTo = how === "upTo" && selected && key ? between(order, selected.key, key) : [];
    setOthers(how === "also" ? chosen : upTo);
    setSelected(key);
  };
  return { selected, chosen, select };
}
