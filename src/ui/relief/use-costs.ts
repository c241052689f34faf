"use client";

import { useEffect, useRef, useState } from "react";
import { type PluginAt, pluginId } from "@/core/relief/relief";
import { costOf } from "../listening/listening";

/** Plugins that are measured in one go; between two of them it can be stopped, and tells how far it is. */
const AT_ONCE = 6;

const NOTHING = { nodes: [], macros: [] };

export interface Costs {
  /** Milliseconds for each second of sound, by plugin. */
  readonly of: ReadonlyMap<string, number>;
  /** How many of how many are measured; null while none is being measured. */
  readonly going: { readonly done: number; readonly all: number } | null;
  readonly failed: boolean;
  readonly measure: () => void;
  readonly stop: () => void;
}

/** What plugins cost on this machine, each by itself and switched on, measured when that is asked for. */
export function useCosts(plugins: readonly PluginAt[], tempo: number): Costs {
  const [of, setOf] = useState<ReadonlyMap<string, number>>(new Map());
  const [going, setGoing] = useState<Costs["going"]>(null);
  const [failed, setFailed] = useState(false);
  const turn = useRef(0);
  const stop = () => {
    turn.current++;
    setGoing(null);
  };
  useEffect(
    () => () => {
      turn.current++;
    },
    [],
  );
  const measure = async () => {
    const own = ++turn.current;
    setFailed(false);
    setGoing({ done: 0, all: plugins.length });
    try {
      for (let from = 0; from < plugins.length; from += AT_ONCE) {
        const some = plugins.slice(from, from + AT_ONCE);
        const chains = some.map(({ processor }) => ({ nodes: [{ ...processor, enabled: true }], macros: [] }));
        const [empty = 0, ...each] = await costOf([NOTHING, ...chains], tempo);
        if (turn.current !== own) return;
        setOf((before) => {
          const after = new Map(before);
          for (const [at, plugin] of some.entries()) after.set(pluginId(plugin), Math.max(0, (each[at] ?? 0) - empty));
          return after;
        });
        setGoing({ done: Math.min(from + AT_ONCE, plugins.length), all: plugins.length });
      }
    } catch {
      if (turn.current === own) setFailed(true);
    }
    if (turn.current === own) setGoing(null);
  };
  return { of, going, failed, measure: () => void measure(), stop };
}
