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
  /** From where a stretch is chosen. */
  const [anchor, setAnchor] = useState<string | null>(null);
  const order = nodesIn(chain.nodes).map((node) => node.key);
  const selected = (selectedKey === null ? null : findNode(chain, selectedKey)?.node) ?? processorsOf(chain)[0] ?? null;
  const chosen = order.filter((key) => key === selected?.key || others.includes(key));
  const leave = (key: string) => {
    const rest = chosen.filter((k) => k !== key);
    setOthers(rest);
    if (selected?.key === key) setSelected(rest[0] ?? null);
  };
  const stretch = (key: string | null) => {
    const from = anchor !== null && chosen.includes(anchor) ? anchor : (selected?.key ?? null);
    setAnchor(from);
    setOthers(from !== null && key !== null ? between(order, from, key) : []);
    setSelected(key);
  };
  const select: Choice["select"] = (key, how = "only") => {
    if (key !== null && how === "also" && chosen.includes(key) && chosen.length > 1) return leave(key);
    if (how === "upTo") return stretch(key);
    setAnchor(key);
    setOthers(how === "also" ? chosen : []);
    setSelected(key);
  };
  return { selected, chosen, select };
}
