"use client";

import { useQueryClient } from "@tanstack/react-query";
import { Ellipsis } from "lucide-react";
import { type KeyboardEvent, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetQuery, SearchChange } from "@/contracts/library";
import { cutText } from "@/core/names/cut";
import { fold } from "@/core/names/words";
import type { SavedSearch } from "@/core/settings/settings";
import { Button } from "../kit/button";
import { inPlaceKeys } from "../kit/in-place";
import { Menu } from "../kit/menu";
import { mintKey } from "../kit/mint";
import { orSay } from "../kit/say";
import { useSettings } from "../settings/settings";
import { inFilingLine, useFiling } from "./filing";
import { type SetFilters, useFilters } from "./use-library";

interface Props {
  readonly query: PresetQuery;
  readonly onSet: SetFilters;
  /** Puts words into the field on top. */
  readonly onWords: (words: string) => void;
}

/** Longest name of a search. */
const LONGEST = 120;

/** Changes the list of kept searches, and says what was done with the way back. */
function useSearches() {
  const queries = useQueryClient();
  const { settings } = useSettings();
  const { done } = useFiling();
  const change = (next: SearchChange, words: string) =>
    orSay(
      inFilingLine(async () => queries.setQueryData(KEYS.settings, await api.changeSearch(next))).then(() =>
        done(words),
      ),
    );
  return {
    searches: settings.searches,
    keep: (search: SavedSearch) => {
      const { id, ...rest } = search;
      change({ id, search: rest }, `Keep the search “${search.name}”`);
    },
    rename: ({ id, ...search }: SavedSearch, name: string) =>
      change({ id, search: { ...search, name } }, `Call the search “${search.name}” “${name}”`),
    move: ({ id, ...search }: SavedSearch, at: number) =>
      change({ id, search, at }, `Move the search “${search.name}”`),
    letGo: ({ id, name }: SavedSearch) => change({ id, search: null }, `Let go of the search “${name}”`),
  };
}

interface NamingProps {
  readonly label: string;
  readonly name: string;
  /** What other searches are called. */
  readonly others: readonly string[];
  readonly onName: (name: string) => void;
}

/** A name, typed in place: Enter or leaving takes it, Escape leaves it as it was. That another has it is said. */
function Naming({ label, name, others, onName }: NamingProps) {
  const [typed, setTyped] = useState(name);
  const isTaken = others.some((other) => fold(other) === fold(typed.trim()));
  return (
    <div className="px-[14px] pb-1">
      <input
        autoFocus
        aria-label={label}
        placeholder="Name, then Enter"
        defaultValue={name}
        maxLength={LONGEST}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={(event) => onName(cutText(event.target.value.trim(), LONGEST))}
        onKeyDown={inPlaceKeys(name)}
        className="h-[26px] w-full rounded-card border border-bound bg-ground px-2"
      />
      {isTaken && (
        <p role="status" className="text-small text-edit">
          Another search has that name.
        </p>
      )}
    </div>
  );
}

/** Searches under names: one click brings the words, the filters and the folder again. */
export function KeptSearches({ query, onSet, onWords }: Props) {
  const kept = useSearches();
  const [naming, setNaming] = useState(false);
  const { searches } = kept;
  const { columns } = useFilters();
  const q = query.q ?? "";
  const only = query.only ?? "";
  const folder = query.folder ?? null;
  const shown = { ...(query.sort ? { sort: query.sort } : {}), ...(columns ? { columns } : {}) };
  const isNarrowed = q !== "" || only !== "" || folder !== null;
  const isShown = (s: SavedSearch) => (s.sort ?? query.sort) === query.sort && (s.columns ?? columns) === columns;
  const isKept = searches.some((s) => s.q === q && s.only === only && s.folder === folder && isShown(s));
  const open = (search: SavedSearch) => {
    onWords(search.q);
    onSet({
      q: search.q || undefined,
      only: search.only || undefined,
      folder: search.folder ?? undefined,
      sort: search.sort,
      columns: search.columns,
    });
  };
  return (
    <section aria-label="Kept searches" className="pb-2">
      <div className="flex items-center px-[14px] pt-[10px] pb-1">
        <h2 className="h2 mr-auto">Kept searches</h2>
        {isNarrowed && !isKept && !naming && (
          <Button small plain onClick={() => setNaming(true)}>
            Keep this
          </Button>
        )}
      </div>
      {naming && (
        <Naming
          label="Name of this search"
          name=""
          others={searches.map((search) => search.name)}
          onName={(name) => {
            setNaming(false);
            if (name !== "") kept.keep({ id: mintKey(), name, q, only, folder, ...shown });
          }}
        />
      )}
      <ul>
        {searches.map((search, at) => (
          <Kept
            key={search.id}
            search={search}
            others={searches.flatMap(({ id, name }) => (id === search.id ? [] : [name]))}
            at={at}
            last={searches.length - 1}
            onOpen={() => open(search)}
            onRename={(name) => kept.rename(search, name)}
            onMove={(to) => kept.move(search, to)}
            onLetGo={() => kept.letGo(search)}
          />
        ))}
      </ul>
    </section>
  );
}

interface KeptProps {
  readonly search: SavedSearch;
  /** What the others are called. */
  readonly others: readonly string[];
  /** Its place in the list, and the last there is. */
  readonly at: number;
  readonly last: number;
  readonly onOpen: () => void;
  readonly onRename: (name: string) => void;
  readonly onMove: (to: number) => void;
  readonly onLetGo: () => void;
}

function Kept({ search, others, at, last, onOpen, onRename, onMove, onLetGo }: KeptProps) {
  const [naming, setNaming] = useState(false);
  const keys = ({ key, altKey }: KeyboardEvent): (() => void) | null => {
    if (key === "F2") return () => setNaming(true);
    if (key === "Delete") return onLetGo;
    if (altKey && key === "ArrowUp" && at > 0) return () => onMove(at - 1);
    if (altKey && key === "ArrowDown" && at < last) return () => onMove(at + 1);
    return null;
  };
  if (naming)
    return (
      <li>
        <Naming
          label={`Name of the search ${search.name}`}
          name={search.name}
          others={others}
          onName={(name) => {
            setNaming(false);
            if (name !== "" && name !== search.name) onRename(name);
          }}
        />
      </li>
    );
  return (
    <li className="group flex items-center hover:bg-sunk">
      <button
        type="button"
        title={[search.q, search.only].filter((w) => w !== "").join(" ")}
        onClick={onOpen}
        onKeyDown={(event) => {
          const act = keys(event);
          if (!act) return;
          event.preventDefault();
          event.stopPropagation();
          act();
        }}
        className="h-[26px] min-w-0 flex-1 truncate pl-[14px] text-left"
      >
        {search.name}
      </button>
      <Menu
        align="end"
        trigger={
          <button
            type="button"
            aria-label={`More for the search ${search.name}`}
            className="grid size-[26px] place-items-center text-soft opacity-0 hover:text-ink focus-visible:opacity-100 group-hover:opacity-100 data-[state=open]:opacity-100"
          >
            <Ellipsis size={14} aria-hidden="true" />
          </button>
        }
        items={[
          { id: "rename", label: "Rename", beside: "F2", onChoose: () => setNaming(true) },
          { id: "up", label: "Move up", beside: "Alt ↑", disabled: at === 0, onChoose: () => onMove(at - 1) },
          { id: "down", label: "Move down", beside: "Alt ↓", disabled: at === last, onChoose: () => onMove(at + 1) },
          { id: "let-go", label: "Let go of it", beside: "Delete", onChoose: onLetGo },
        ]}
      />
    </li>
  );
}
