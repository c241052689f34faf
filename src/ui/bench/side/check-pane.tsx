"use client";

import equal from "fast-deep-equal";
import { useEffect, useState } from "react";
import { processorName } from "@/core/chains/chain";
import { processorsOf, findNode } from "@/core/chains/tree";
import { type Mend, checkChain } from "@/core/chains/check";
import { defaultValues } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/steps";
import { formatNumber } from "@/core/units/format";
import { Button } from "../../kit/button";
import { SideHeading } from "../../kit/bits";
import { costOf } from "../../listening/listening";
import { onMeters } from "../../listening/state";
import { mintKey } from "../../kit/mint";
import type { Bench } from "../use-bench";

interface Props {
  readonly bench: Bench;
}

/** Peaks are looked at now and then: a remark that comes and goes would only disturb. In milliseconds. */
const LOOK_EVERY = 1000;

/** The highest sample that has reached each plugin since the chain was last changed, of those where it clipped. */
function usePeaks(chain: Bench["chain"]): ReadonlyMap<string, number> {
  const [peaks, setPeaks] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    const highest = new Map<string, number>();
    const stop = onMeters(({ processors }) => {
      for (const { key, peakIn } of processors) highest.set(key, Math.max(highest.get(key) ?? 0, peakIn));
    });
    const timer = setInterval(() => {
      const clipped = new Map([...highest].filter(([, peak]) => peak > 1));
      // The same remarks again are no reason to draw anything anew.
      setPeaks((before) => (equal([...before], [...clipped]) ? before : clipped));
    }, LOOK_EVERY);
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [chain]);
  return peaks;
}

export function useRemarks({ chain, strip, editing }: Bench) {
  const peaks = usePeaks(chain);
  const source = strip?.source;
  return checkChain(chain, {
    strip: strip?.kind ?? "audio",
    channels: source?.channels ?? "stereo",
    sampleRate: editing.body?.project.sampleRate ?? 48_000,
    peaks,
  });
}

function stepsToMend(hand: gestures.Hand, mend: Mend, bench: Bench): readonly Step[] {
  switch (mend.kind) {
    case "switchOff":
      return gestures.switchOn(hand, [mend.node], false);
    case "set":
      return gestures.turn(hand, mend.node, mend.values);
    case "move": {
      const steps = gestures.moveTo(hand, mend.node, mend.place);
      return steps.ok ? steps.value : [];
    }
    case "turnDown": {
      const place = findNode(bench.chain, mend.before)?.place;
      const gain = getModel("gain");
      const values = { ...defaultValues(gain), gain: mend.dB };
      return place
        ? gestures.putIn(hand, { type: "processor", key: mintKey(), model: gain.id, enabled: true, values }, place)
        : [];
    }
  }
}

/** Quiet remarks, each with its mend; and, on request, what the chain costs. */
export function CheckPane({ bench, remarks }: Props & { readonly remarks: ReturnType<typeof useRemarks> }) {
  return (
    <>
      <SideHeading>Remarks</SideHeading>
      {remarks.length === 0 && <p className="text-small text-soft">Nothing to remark on this chain.</p>}
      <ul className="grid gap-3">
        {remarks.map(({ id, text, mend, node }) => (
          <li key={id} className="grid justify-items-start gap-1">
            <span>{text}</span>
            <span className="flex gap-2">
              {mend && (
                <Button small onClick={() => void bench.gesture(mend.label, (hand) => stepsToMend(hand, mend, bench))}>
                  {mend.label}
                </Button>
              )}
              {node !== null && (
                <Button small plain onClick={() => bench.select(node)}>
                  show
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      <Cost bench={bench} />
    </>
  );
}

interface Costs {
  readonly whole: number;
  readonly each: readonly { readonly key: string; readonly name: string; readonly cost: number }[];
}

/** Milliseconds that a second of sound takes, on this machine, measured now. */
function Cost({ bench }: Props) {
  const [costs, setCosts] = useState<Costs | "measuring" | "failed" | null>(null);
  const { chain, tempo } = bench;
  const measure = async () => {
    setCosts("measuring");
    try {
      const processors = processorsOf(chain);
      const alone = processors.map((p) => ({ nodes: [{ ...p, enabled: true }], macros: [] }));
      const [empty = 0, whole = 0, ...each] = await costOf([{ nodes: [], macros: [] }, chain, ...alone], tempo);
      const above = (cost: number) => Math.max(0, cost - empty);
      setCosts({
        whole: above(whole),
        each: processors.map((p, at) => ({ key: p.key, name: processorName(p), cost: above(each[at] ?? 0) })),
      });
    } catch {
      setCosts("failed");
    }
  };
  return (
    <section aria-label="Cost" className="grid justify-items-start gap-2 pt-2 [&>h2]:w-full">
      <SideHeading>Cost</SideHeading>
      {costs === "failed" && (
        <p className="text-small">It could not be measured; choose another material and try again.</p>
      )}
      {costs !== null && typeof costs === "object" && (
        <table className="w-full text-small">
          <tbody>
            {costs.each.map(({ key, name, cost }) => (
              <tr key={key} className="border-rule border-b">
                <td className="max-w-[120px] truncate py-1">{name}</td>
                <td className="num-small text-right">
                  {formatNumber(cost, 1)}
                  <span className="unit">ms/s</span>
                </td>
              </tr>
            ))}
            <tr>
              <td className="py-1">The whole chain</td>
              <td className="num-small text-right">
                {formatNumber(costs.whole, 1)}
                <span className="unit">ms/s</span>
              </td>
            </tr>
          </tbody>
        </table>
      )}
      <Button small disabled={costs === "measuring" || chain.nodes.length === 0} onClick={() => void measure()}>
        {costs === "measuring" ? "Measuring…" : costs === null ? "Measure what it costs" : "Measure again"}
      </Button>
    </section>
  );
}
