"use client";

import equal from "fast-deep-equal";
import { useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, ChevronDown } from "lucide-react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { type PresetRef, type Processor, isOfSet } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { severalWords } from "@/core/names/several";
import { chainOf, presetRef } from "@/core/presets/preset";
import { defaultValues } from "@/core/processors/model";
import { findModel, getModel } from "@/core/processors/models";
import { MAKERS_START, type Start, withStartingPoint } from "@/core/settings/settings";
import { STRIP_KINDS, type StripKind } from "@/core/documents/strip-kinds";
import { orSay, say } from "../../kit/say";
import { STRIP_WORDS } from "../../kit/strip-words";
import { useSettings } from "../../settings/settings";
import * as gestures from "@/core/recall/gestures";
import { useActions } from "../../actions/actions";
import { Button } from "../../kit/button";
import { cx } from "../../kit/class-names";
import { Menu } from "../../kit/menu";
import { Segments } from "../../kit/segments";
import { Shapes } from "../../kit/shape";
import type { Instrument } from "../instrument/use-instrument";
import type { Bench } from "../use-bench";
import type { BenchGestures } from "../use-bench-gestures";
import type { How } from "../../projects/editing";
import { type FittingSort, useFitting, useFittingWords, usePassing } from "./fitting";
import { saveSlotAs, slotOf, useSaveSlot } from "./slot";
import { useSounds } from "./sounds";

interface Props {
  readonly bench: Bench;
  readonly act: BenchGestures;
  readonly instrument: Instrument | null;
}

/** One panel for every plugin, section and chain: what fits, load, next and previous, save, the model's own start. */
export function SoundsPane({ bench, act, instrument }: Props) {
  const { whole, setWhole } = useSounds();
  const slot = slotOf(bench, whole, instrument?.selected ?? null);
  const wanted = useFittingWords();
  const { rows, pages } = useFitting(bench, slot, wanted);
  const passBy = usePassing(!bench.isDraft);
  const from = gestures.presetInSlot(slot, bench.chain);
  const at = rows.findIndex((row) => row.id === from?.preset);
  const load = (row: PresetRow, how: How = {}) => {
    const from = presetRef(row);
    void bench.gesture(`Load ${row.card.name}`, (h) => gestures.loadIntoSlot(h, slot, row.content, from), how);
  };
  const step = (by: 1 | -1) => {
    const row = rows[at < 0 ? (by > 0 ? 0 : rows.length - 1) : (at + by + rows.length) % rows.length];
    if (!row) return;
    passBy(row.id);
    load(row, { passing: true });
  };
  const group = "Sounds";
  useActions([
    {
      id: "next-sound",
      title: `Next sound for ${gestures.nameOfSlot(slot)}`,
      group,
      keys: ["."],
      enabled: rows.length > 0,
      run: () => step(1),
    },
    {
      id: "previous-sound",
      title: `Previous sound for ${gestures.nameOfSlot(slot)}`,
      group,
      keys: [","],
      enabled: rows.length > 0,
      run: () => step(-1),
    },
  ]);
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
              label: instrument?.selected ? "Instrument" : bench.selected?.type === "section" ? "Section" : "Plugin",
              disabled: !instrument?.selected && (!bench.selected || bench.selected.type === "split"),
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
      <div className="flex min-w-0 gap-2">
        <input
          aria-label="Find among these sounds"
          placeholder="Find among these"
          value={wanted.words}
          onChange={(event) => wanted.setWords(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Escape" || wanted.words === "") return;
            event.preventDefault();
            wanted.setWords("");
          }}
          className="h-[26px] min-w-0 flex-1 rounded-card border border-bound bg-ground px-2"
        />
        <select
          aria-label="Order of these sounds"
          value={wanted.sort}
          onChange={(event) => wanted.setSort(event.target.value as FittingSort)}
          className="h-[26px] w-[92px] flex-none rounded-card border border-edge bg-card px-1 text-small"
        >
          <option value="nearest">nearest</option>
          <option value="used">last used</option>
          <option value="name">name</option>
          <option value="saved">last saved</option>
        </select>
      </div>
      {pages.isSuccess && !pages.isPlaceholderData && pages.data.pages[0]?.items.length === 0 && (
        <p className="text-small text-soft">
          {wanted.words.trim() === ""
            ? `Nothing in the library fits ${gestures.nameOfSlot(slot)} yet. What you save from here stands here next time.`
            : `No sound for ${gestures.nameOfSlot(slot)} matches “${wanted.words.trim()}”.`}
        </p>
      )}
      <ul
        aria-label={`Sounds for ${gestures.nameOfSlot(slot)}`}
        className="-mx-2 grid min-w-0 grid-cols-[minmax(0,1fr)]"
      >
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
                  {[row.card.origin.artist, row.card.purpose].map(severalWords).filter(Boolean).join(" · ") ||
                    (row.pack ?? "own")}
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
      <SlotFoot bench={bench} act={act} instrument={instrument} slot={slot} onLoad={load} />
    </>
  );
}

interface FootProps extends Props {
  readonly slot: gestures.Slot;
  readonly onLoad: (row: PresetRow) => void;
}

/** What can be done with the sound that stands in the slot. */
function SlotFoot({ bench, act, instrument, slot, onLoad }: FootProps) {
  const queries = useQueryClient();
  const saveOver = useSaveSlot(bench, act, slot);
  const from = gestures.presetInSlot(slot, bench.chain);
  const plugin = gestures.pluginOf(slot);
  const model = plugin ? findModel(plugin.model) : null;
  if (slot.kind === "chain") return null;
  /** The version that it came from, wherever that stands in the list, and whatever was saved since. */
  const backTo = async ({ preset, version }: PresetRef) =>
    onLoad(
      (
        await queries.fetchQuery({
          queryKey: KEYS.version(preset, version),
          queryFn: () => api.getPreset(preset, version),
        })
      ).preset,
    );
  return (
    <div className="flex flex-wrap gap-2 border-rule border-t pt-3">
      {from && !isOfSet(from) && (
        <Button small onClick={() => void saveOver(from)}>
          Save new version
        </Button>
      )}
      <Button small onClick={() => saveSlotAs(bench, act, slot)}>
        Save as…
      </Button>
      {model && (
        <Button
          small
          onClick={() =>
            slot.kind === "layer"
              ? instrument?.turn(slot.layer.key, defaultValues(model))
              : void bench.gesture(`${model.name} as it starts`, (h) =>
                  gestures.turn(h, plugin?.key ?? "", defaultValues(model)),
                )
          }
        >
          The model’s own start
        </Button>
      )}
      {plugin && <StartHere bench={bench} plugin={plugin} preset={from} />}
      {from && !isOfSet(from) && (
        <Button small onClick={() => orSay(backTo(from))}>
          Back to saved
        </Button>
      )}
    </div>
  );
}

interface StartProps {
  readonly bench: Bench;
  readonly plugin: Processor;
  readonly preset: PresetRef | null;
}

const WHERE: readonly (StripKind | null)[] = [null, ...STRIP_KINDS.filter((kind) => kind !== "folder")];

const whereWords = (strip: StripKind | null): string => (strip === null ? "everywhere" : `on ${STRIP_WORDS[strip]}`);

/** Makes what stands in the slot, saved or not, what its plugin opens with, everywhere or on strips of a kind; and back. */
function StartHere({ bench, plugin, preset }: StartProps) {
  const { settings, change } = useSettings();
  const { model } = plugin;
  const name = getModel(model).name;
  const isAsSaved = preset !== null && !bench.changed.has(plugin.key);
  const standing: Start = isAsSaved
    ? { preset: preset.preset, version: null }
    : { preset: null, version: null, values: plugin.values };
  const what = isAsSaved ? `“${preset.name}”` : "these values";
  const set = (strip: StripKind | null, start: Start, words: string) =>
    orSay(
      // As the maker set it everywhere is as it is where nothing was chosen.
      change((now) =>
        withStartingPoint(now, { model, strip }, strip === null && start === MAKERS_START ? null : start),
      ).then(() => say(`${name} now opens with ${words} ${whereWords(strip)}.`)),
    );
  const items = (start: Start, words: string) =>
    WHERE.map((strip) => {
      const point = settings.startingPoints.find((p) => p.model === model && p.strip === strip);
      const isIt = point ? equal(startOf(point), start) : strip === null && equal(start, MAKERS_START);
      return {
        id: `${words} ${strip}`,
        label: whereWords(strip),
        ...(isIt ? { beside: "as it is" } : {}),
        onChoose: () => set(strip, start, words),
      };
    });
  return (
    <Menu
      trigger={
        <Button small>
          Opens with
          <ChevronDown size={13} aria-hidden="true" />
        </Button>
      }
      groups={[
        { id: "this", head: `Open ${name} with ${what}`, items: items(standing, what) },
        { id: "maker", head: "With the maker’s start", items: items(MAKERS_START, "the maker’s start") },
      ]}
    />
  );
}

const startOf = ({ preset, version, values }: Start): Start => ({ preset, version, ...(values ? { values } : {}) });
