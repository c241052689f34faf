"use client";

import { useInfiniteQuery } from "@tanstack/react-query";
import { ArrowDown, ArrowUp } from "lucide-react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetQuery } from "@/contracts/endpoints";
import type { PresetRow } from "@/contracts/records";
import { type Chain, type ChainNode, type Processor, nodeName, processorName, processorsOf } from "@/core/chains/chain";
import { freshClipping } from "@/core/chains/clipping";
import { chainOf, withFrom } from "@/core/presets/preset";
import { defaultValues } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import { useActions } from "../../actions/actions";
import { Button } from "../../kit/button";
import { cx } from "../../kit/class-names";
import { Segments } from "../../kit/segments";
import { Shapes } from "../../kit/shape";
import { useLastList } from "../../library/last-list";
import { mintKey } from "../../projects/mint";
import type { Bench } from "../use-bench";
import type { BenchHands } from "../use-bench-gestures";
import { useSounds } from "./sounds";

interface Props {
  readonly bench: Bench;
  readonly hand: BenchHands;
}

/** What the sounds are for: what is selected, or the whole chain. */
export type Slot =
  | { readonly kind: "processor"; readonly processor: Processor }
  | { readonly kind: "section"; readonly section: Extract<ChainNode, { type: "section" }> }
  | { readonly kind: "chain" };

function slotOf({ selected }: Bench, whole: boolean): Slot {
  if (!whole && selected?.type === "processor") return { kind: "processor", processor: selected };
  if (!whole && selected?.type === "section") return { kind: "section", section: selected };
  return { kind: "chain" };
}

/** The presets that fit a slot, in the order and with the words of the list last shown. */
function useFitting(slot: Slot) {
  const { sort } = useLastList();
  const query: PresetQuery =
    slot.kind === "processor" ? { kind: "plugin", model: slot.processor.model, sort } : { kind: "chain", sort };
  const pages = useInfiniteQuery({
    queryKey: [...KEYS.presets, "fitting", query],
    queryFn: ({ pageParam }) => api.listPresets({ ...query, limit: 100, ...(pageParam ? { after: pageParam } : {}) }),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next,
  });
  return { pages, rows: pages.data?.pages.flatMap((page) => page.items) ?? [] };
}

const titleOf = (slot: Slot): string =>
  slot.kind === "processor"
    ? processorName(slot.processor)
    : slot.kind === "section"
      ? nodeName(slot.section)
      : "the chain";

const fromOf = (slot: Slot, chain: Chain) =>
  (slot.kind === "processor" ? slot.processor.from : slot.kind === "section" ? slot.section.from : chain.from) ?? null;

/** One panel for every plugin, section and chain: what fits, load, next and previous, save, the model's own start. */
export function SoundsPane({ bench, hand }: Props) {
  const { whole, setWhole } = useSounds();
  const slot = slotOf(bench, whole);
  const { rows, pages } = useFitting(slot);
  const from = fromOf(slot, bench.chain);
  const at = rows.findIndex((row) => row.id === from?.preset);
  const load = (row: PresetRow) =>
    void bench.gesture(`Load ${row.card.name}`, (h) => stepsToLoad(h, slot, row, bench.chain));
  const step = (by: 1 | -1) => {
    const row = rows[at < 0 ? (by > 0 ? 0 : rows.length - 1) : (at + by + rows.length) % rows.length];
    if (row) load(row);
  };
  const group = "Sounds";
  useActions([
    {
      id: "next-sound",
      title: `Next sound for ${titleOf(slot)}`,
      group,
      keys: ["."],
      enabled: rows.length > 0,
      run: () => step(1),
    },
    {
      id: "previous-sound",
      title: `Previous sound for ${titleOf(slot)}`,
      group,
      keys: [","],
      enabled: rows.length > 0,
      run: () => step(-1),
    },
  ]);
  const model = slot.kind === "processor" ? findModel(slot.processor.model) : null;
  return (
    <>
      <div className="flex items-center gap-2">
        <Segments
          small
          label="Sounds for"
          value={whole || slot.kind === "chain" ? "chain" : "selected"}
          onChange={(value) => setWhole(value === "chain")}
          options={[
            {
              value: "selected",
              label: bench.selected?.type === "section" ? "Section" : "Plugin",
              disabled: !bench.selected || bench.selected.type === "split",
            },
            { value: "chain", label: "Chain" },
          ]}
        />
        <span className="ml-auto flex gap-1">
          <Button
            small
            aria-label="Previous sound"
            title="Previous (,)"
            disabled={rows.length === 0}
            onClick={() => step(-1)}
          >
            <ArrowUp size={13} aria-hidden="true" />
          </Button>
          <Button small aria-label="Next sound" title="Next (.)" disabled={rows.length === 0} onClick={() => step(1)}>
            <ArrowDown size={13} aria-hidden="true" />
          </Button>
        </span>
      </div>
      {pages.isSuccess && rows.length === 0 && (
        <p className="text-small text-soft">
          Nothing in the library fits {titleOf(slot)} yet. What you save from here stands here next time.
        </p>
      )}
      <ul aria-label={`Sounds for ${titleOf(slot)}`} className="-mx-2 grid">
        {rows.map((row) => (
          <li key={row.id}>
            <button
              type="button"
              aria-current={row.id === from?.preset}
              onClick={() => load(row)}
              className={cx(
                "flex h-[44px] w-full items-center gap-2 rounded-card px-2 text-left hover:bg-sunk",
                row.id === from?.preset && "row-chosen",
              )}
            >
              <span className="min-w-0 flex-1">
                <span className="name block truncate leading-5">{row.card.name}</span>
                <span className="block truncate text-small text-soft">
                  {[row.card.origin.artist, row.card.purpose].filter(Boolean).join(" · ") || "own"}
                </span>
              </span>
              <Shapes processors={processorsOf(chainOf(row.content))} tempo={bench.tempo} most={1} width={44} />
            </button>
          </li>
        ))}
      </ul>
      {pages.hasNextPage && (
        <Button small onClick={() => void pages.fetchNextPage()}>
          Show more
        </Button>
      )}
      <div className="flex flex-wrap gap-2 border-rule border-t pt-3">
        {slot.kind !== "chain" && (
          <Button
            small
            onClick={() => hand.saveNode(slot.kind === "processor" ? slot.processor.key : slot.section.key)}
          >
            Save as…
          </Button>
        )}
        {model && slot.kind === "processor" && (
          <Button
            small
            onClick={() =>
              void bench.gesture(`${model.name} as it starts`, (h) =>
                gestures.turn(h, slot.processor.key, defaultValues(model)),
              )
            }
          >
            The model’s own start
          </Button>
        )}
        {from && slot.kind !== "chain" && (
          <Button
            small
            onClick={() => {
              const row = rows.find((r) => r.id === from.preset);
              if (row) load(row);
            }}
          >
            Back to saved
          </Button>
        )}
      </div>
    </>
  );
}

/** The steps that put a preset into a slot; what stands around it stays. */
function stepsToLoad(hand: gestures.Hand, slot: Slot, row: PresetRow, now: Chain) {
  const content = withFrom(row.content, { preset: row.id, version: row.version, name: row.card.name });
  const loaded = chainOf(content);
  if (slot.kind === "processor") {
    const [processor] = processorsOf(loaded);
    return processor ? gestures.replaceNode(hand, { ...processor, key: slot.processor.key }) : [];
  }
  if (slot.kind === "chain") return gestures.replaceInserts(hand, loaded);
  const fresh = freshClipping(loaded, mintKey);
  const nodes = fresh.nodes.flatMap((node) => (node.type === "section" ? node.nodes : [node]));
  const section: ChainNode = {
    ...slot.section,
    nodes,
    ...(loaded.from ? { from: loaded.from } : {}),
  };
  const others = gestures.macrosWithout(now, slot.section.key);
  return [
    ...gestures.setMacros(hand, others),
    ...gestures.replaceNode(hand, section),
    ...addMacros(hand, others, fresh.macros),
  ];
}

/** Added behind those that are left, once their targets are there. */
const addMacros = (hand: gestures.Hand, others: Chain["macros"], macros: readonly Chain["macros"][number][]) =>
  macros.length === 0 ? [] : gestures.setMacrosFrom(hand, others, [...others, ...macros]);
