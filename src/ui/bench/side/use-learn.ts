"use client";

import { nameApart } from "@/core/chains/tree";
import { findTargetSpec } from "@/core/chains/macros";
import * as gestures from "@/core/recall/gestures";
import { beatsPerMinute } from "@/core/units/quantities";
import { say } from "../../kit/say";
import type { Learner, Touched } from "../learning";
import type { Bench } from "../use-bench";

/** An axis of a macro takes on a value, from where it stands. */
export function useLearn({ chain, tempo, gesture }: Bench): (learner: Learner, touched: Touched) => void {
  return (learner, touched) => {
    const macro = chain.macros.find(({ key }) => key === learner.macro);
    const name = findTargetSpec(chain, touched)?.name ?? "";
    if (macro?.axes[learner.axis]?.some((t) => t.node === touched.node && t.param === touched.param))
      return say(`${macro.name} moves ${nameApart(chain, touched.node)}: ${name} already.`);
    void gesture(`${macro?.name ?? "Macro"} learns ${name}`, (hand) =>
      gestures.learn(hand, learner, touched, beatsPerMinute(tempo)),
    );
  };
}
