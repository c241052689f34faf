"use client";

import { ChevronDown, ChevronRight, Copy, History, ListOrdered, Plus, Trash2, Type } from "lucide-react";
import { type DragEvent, Suspense, lazy, useRef, useState } from "react";
import * as api from "@/clients/api";
import type { PresetPage, PresetQuery } from "@/contracts/library";
import type { Field } from "@/core/search/fields";
import { type Filters as Chosen, chosenOf, readFilters, toggleFilter, writeFilters } from "@/core/search/written";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { formatCount } from "@/core/names/count";
import { FACETS, wordOf } from "./facets";
import { openSheet, useFiling } from "./filing";
import { FolderTree } from "./folder-tree";
import { DRAGGED_SOUNDS } from "./dragged";
import { orSay } from "../kit/say";
import { useSettings } from "../settings/settings";
import { type SetFilters, useFolders } from "./use-library";

// Fetched when it is asked for.
const AllValues = lazy(() => import("./all-values").then((m) => ({ default: m.AllValues })));
const ReadySearches = lazy(() => import("./ready-searches").then((m) => ({ default: m.ReadySearches })));
// Where there are none, and nothing to keep, they are not fetched.
const KeptSearches = lazy(() => import("./kept-searches").then((m) => ({ default: m.KeptSearches })));

interface Props {
  readonly query: PresetQuery;
  readonly total: number | undefined;
  readonly facets: PresetPage["facets"] | undefined;
  /** Puts the chosen sounds into a folder. */
  readonly onMove: (folder: string | null, also: boolean) => void;
  readonly onSet: SetFilters;
  /** Puts words into the field on top. */
  readonly onWords: (words: string) => void;
}

interface LineProps {
  readonly label: string;
  readonly count?: number | undefined;
  readonly on: boolean;
  readonly onClick: () => void;
  /** Sounds dragged onto it. */
  readonly onSounds?: () => void;
}

const holdsSounds = ({ dataTransfer }: DragEvent): boolean => dataTransfer.types.includes(DRAGGED_SOUNDS);

/** Lets sounds be dropped, and says while they are over it. */
function useSoundDrop(onSounds: (() => void) | undefined) {
  const [over, setOver] = useState(false);
  if (!onSounds) return { over: false, props: {} };
  const props = {
    onDragOver: (event: DragEvent) => {
      if (!holdsSounds(event)) return;
      event.preventDefault();
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (event: DragEvent) => {
      setOver(false);
      if (!holdsSounds(event)) return;
      event.preventDefault();
      onSounds();
    },
  };
  return { over, props };
}

function Line({ label, count, on, onClick, onSounds }: LineProps) {
  const drop = useSoundDrop(onSounds);
  return (
    <li>
      <button
        type="button"
        {...drop.props}
        aria-pressed={on}
        onClick={onClick}
        className={cx(
          "flex h-[26px] w-full items-center justify-between gap-2 px-[14px] text-left hover:bg-sunk",
          on && "row-chosen",
          drop.over && "bg-live-tint outline-1 -outline-offset-1 outline-live",
        )}
      >
        <span className="truncate">{label}</span>
        {count !== undefined && <span className="num-small text-soft">{formatCount(count)}</span>}
      </button>
    </li>
  );
}

/** Open from the start: what most people look by. */
const FIRST: readonly Field[] = ["kind", "tag", "artist"];
/** Values that are shown before the rest is asked for. */
const FEW = 7;
/** Values that come with a list; of a field that has as many there may be more. */
const MOST_TOLD = 40;

interface FacetProps {
  readonly query: PresetQuery;
  readonly field: Field;
  readonly heading: string;
  readonly values: readonly { readonly value: string; readonly n: number }[];
  readonly chosen: readonly string[];
  readonly onToggle: (value: string) => void;
}

/** One field: its values among what is listed, each with how many have it. */
function Facet({ query, field, heading, values, chosen, onToggle }: FacetProps) {
  const [open, setOpen] = useState(FIRST.includes(field) || chosen.length > 0);
  const [all, setAll] = useState(false);
  const more = useRef<HTMLButtonElement>(null);
  const onClose = () => setAll(false);
  const gone = chosen.filter((value) => !values.some((v) => v.value === value)).map((value) => ({ value, n: 0 }));
  const listed = [...gone, ...values];
  if (listed.length === 0) return null;
  const Chevron = open ? ChevronDown : ChevronRight;
  const shown = listed.filter((v, at) => at < FEW || chosen.includes(v.value));
  return (
    <section aria-label={heading}>
      <h2 className="pt-[6px]">
        <button
          type="button"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          className="h2 flex h-[26px] w-full items-center gap-1 px-[14px] text-left hover:text-ink"
        >
          {heading}
          {chosen.length > 0 && <span className="num-small text-live">{chosen.length}</span>}
          <Chevron size={14} aria-hidden="true" className="ml-auto text-soft" />
        </button>
      </h2>
      {open && (
        <ul>
          {shown.map(({ value, n }) => (
            <Line
              key={value}
              label={wordOf(field, value)}
              count={n}
              on={chosen.includes(value)}
              onClick={() => onToggle(value)}
            />
          ))}
          {listed.length > shown.length && (
            <li>
              <button
                ref={more}
                type="button"
                aria-haspopup="dialog"
                aria-expanded={all}
                onClick={() => setAll(true)}
                className="h-[26px] px-[14px] text-small text-live hover:underline"
              >
                {listed.length < MOST_TOLD ? `All ${listed.length}…` : "All…"}
              </button>
              <Suspense>
                {all && <AllValues {...{ query, field, heading, chosen, onToggle, anchor: more, onClose }} />}
              </Suspense>
            </li>
          )}
        </ul>
      )}
    </section>
  );
}

/** Folders, then every field by which a sound can be told from others, each value with how many have it. */
export function Filters({ query, total, facets, onMove, onSet, onWords }: Props) {
  const known = useFolders().data?.folders;
  const folders = known ?? [];
  const chosen: Chosen = readFilters(query.only ?? "");
  const { done } = useFiling();
  const moveFolder = async (folder: string, parent: string) => {
    await api.changeFolder(folder, { parent });
    await done(`Move folder “${folders.find(({ id }) => id === folder)?.name}”`);
  };
  const onGone = (parent: string | null) => onSet({ folder: parent ?? undefined });
  const everything = !query.folder && !query.only;
  const [ready, setReady] = useState(false);
  const { settings } = useSettings();
  const toggle = (field: Field, value: string) =>
    onSet(({ only = "" }) => ({ only: writeFilters(toggleFilter(readFilters(only), field, value)) }));
  return (
    <nav aria-label="Folders and filters" className="h-full overflow-auto py-3">
      <Suspense>
        {(settings.searches.length > 0 || query.q || !everything) && (
          <KeptSearches query={query} onSet={onSet} onWords={onWords} />
        )}
      </Suspense>
      <h2>
        <button
          type="button"
          aria-expanded={ready}
          onClick={() => setReady(!ready)}
          className="h2 flex h-[26px] w-full items-center px-[14px] text-left hover:text-ink"
        >
          Still to do
          {ready ? (
            <ChevronDown size={14} aria-hidden="true" className="ml-auto text-soft" />
          ) : (
            <ChevronRight size={14} aria-hidden="true" className="ml-auto text-soft" />
          )}
        </button>
      </h2>
      <Suspense>{ready && <ReadySearches words={query.q ?? ""} onWords={onWords} />}</Suspense>
      <div className="flex items-center gap-1 px-[14px] pt-[10px] pb-1">
        <h2 className="h2 mr-auto">Folders</h2>
        {query.folder && (
          <Button small plain onClick={() => openSheet({ sheet: "folder", folder: query.folder ?? null, onGone })}>
            Change
          </Button>
        )}
        <Button
          small
          plain
          aria-label="New folder"
          onClick={() => openSheet({ sheet: "folder", folder: null, within: query.folder })}
        >
          <Plus size={14} aria-hidden="true" />
          New
        </Button>
      </div>
      <ul>
        <Line
          label="All sounds"
          count={everything ? total : undefined}
          on={everything && query.sort !== "used" && query.sort !== "saved"}
          onSounds={() => onMove(null, false)}
          onClick={() => onSet({ folder: undefined, only: undefined, sort: undefined })}
        />
        {(["used", "saved"] as const).map((sort) => (
          <Line
            key={sort}
            label={sort === "used" ? "Lately used" : "Lately saved"}
            on={everything && query.sort === sort}
            onClick={() => onSet({ folder: undefined, only: undefined, sort })}
          />
        ))}
      </ul>
      <FolderTree
        folders={folders}
        chosen={query.folder}
        onChoose={(folder) => onSet({ folder })}
        onSounds={onMove}
        onMove={(folder, parent) => orSay(moveFolder(folder, parent))}
        onGone={onGone}
      />
      {known && facets && <Below query={query} chosen={chosen} facets={facets} onToggle={toggle} />}
    </nav>
  );
}

interface BelowProps {
  readonly query: PresetQuery;
  readonly chosen: Chosen;
  readonly facets: PresetPage["facets"];
  readonly onToggle: (field: Field, value: string) => void;
}

/** What stands below the folders: there once all above it is, so that nothing moves away from under the hand. */
function Below({ query, chosen, facets, onToggle }: BelowProps) {
  return (
    <>
      {FACETS.map(([field, heading]) => (
        <Facet
          key={field}
          query={query}
          field={field}
          heading={heading}
          values={facets[field] ?? []}
          chosen={chosenOf(chosen, field)}
          onToggle={(value) => onToggle(field, value)}
        />
      ))}
      <Button small plain className="mt-2 px-[14px]" onClick={() => openSheet({ sheet: "nearCopies", chosen: [] })}>
        <Copy size={14} aria-hidden="true" />
        Near copies
      </Button>
      <Button small plain className="px-[14px]" onClick={() => openSheet({ sheet: "naming" })}>
        <Type size={14} aria-hidden="true" />
        Names to mend
      </Button>
      <Button small plain className="px-[14px]" onClick={() => openSheet({ sheet: "words" })}>
        <ListOrdered size={14} aria-hidden="true" />
        Words in order
      </Button>
      <Button small plain className="px-[14px]" onClick={() => openSheet({ sheet: "history" })}>
        <History size={14} aria-hidden="true" />
        History
      </Button>
      <Button small plain className="px-[14px]" onClick={() => openSheet({ sheet: "bin" })}>
        <Trash2 size={14} aria-hidden="true" />
        Bin
      </Button>
    </>
  );
}
