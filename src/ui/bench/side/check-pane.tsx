"use client";

import { useEffect, useState } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Peaks } from "@/clients/sound-engine";
import { processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { checkChain } from "@/core/chains/check";
import * as gestures from "@/core/recall/gestures";
import { formatNumber } from "@/core/units/format";
import { beatsPerMinute } from "@/core/units/quantities";
import { Button } from "../../kit/button";
import { SideHeading } from "../../kit/bits";
import { costOf, peaksOfA } from "../../listening/listening";
import { useListening } from "../../listening/state";
import type { Bench } from "../use-bench";

interface Props {
  readonly bench: Bench;
}

/** As long as a hand rests between two turns: in milliseconds. */
const LOOK_AFTER = 600;

/** What reaches each plugin and what leaves the chain, measured when the hand rests; null until then. */
function usePeaks(): Peaks | null {
  const [a, material, stretch, isStale] = useListening(useShallow((l) => [l.a, l.material, l.stretch, l.stale]));
  const [found, setFound] = useState<{ readonly of: unknown; readonly peaks: Peaks | null } | null>(null);
  useEffect(() => {
    // Measured together with the loudness, which waits for the first press.
    if (isStale || !a) return;
    let wanted = true;
    const timer = setTimeout(() => {
      peaksOfA()
        .then((peaks) => wanted && setFound({ of: a, peaks }))
        .catch(() => undefined);
    }, LOOK_AFTER);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [a, material, stretch, isStale]);
  return found?.of === a ? found.peaks : null;
}

export function useRemarks({ chain, strip, editing, tempo }: Bench) {
  const peaks = usePeaks();
  const source = strip?.source;
  return checkChain(chain, {
    strip: strip?.kind ?? "audio",
    channels: source?.channels ?? "stereo",
    sampleRate: editing.body?.project.sampleRate ?? 48_000,
    tempo: beatsPerMinute(tempo),
    peaks,
  });
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
                <Button small onClick={() => void bench.gesture(mend.label, (hand) => gestures.mend(hand, mend))}>
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
