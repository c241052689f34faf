"use client";

import { inPlaceKeys } from "../kit/in-place";
import { cutText } from "@/core/names/cut";
import { X } from "lucide-react";
import { useState } from "react";
import type { PresetQuery } from "@/contracts/library";
import { orSay } from "../kit/say";
import { mintKey } from "../kit/mint";
import { useSettings } from "../settings/settings";
import { Button } from "../kit/button";
import type { SetFilters } from "./use-library";

interface Props {
  readonly query: PresetQuery;
  readonly onSet: SetFilters;
  /** Puts words into the field on top. */
  readonly onWords: (words: string) => void;
}

/** Searches under names: one click brings the words, the filters and the folder again. */
export function KeptSearches({ query, onSet, onWords }: Props) {
  const { settings, change } = useSettings();
  const [naming, setNaming] = useState(false);
  const { searches } = settings;
  const q = query.q ?? "";
  const only = query.only ?? "";
  const folder = query.folder ?? null;
  const isNarrowed = q !== "" || only !== "" || folder !== null;
  const isKept = searches.some((s) => s.q === q && s.only === only && s.folder === folder);
  const keep = (name: string) => {
    setNaming(false);
    if (name.trim() === "") return;
    const search = { id: mintKey(), name: cutText(name.trim(), 120), q, only, folder };
    orSay(change((now) => ({ ...now, searches: [...now.searches, search] })));
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
        <input
          autoFocus
          aria-label="Name of this search"
          placeholder="Name, then Enter"
          maxLength={120}
          onBlur={(event) => keep(event.target.value)}
          onKeyDown={inPlaceKeys("")}
          className="mx-[14px] mb-1 h-[26px] w-[calc(100%-28px)] rounded-card border border-bound bg-ground px-2"
        />
      )}
      <ul>
        {searches.map((search) => (
          <li key={search.id} className="group flex items-center hover:bg-sunk">
            <button
              type="button"
              title={[search.q, search.only].filter((w) => w !== "").join(" ")}
              onClick={() => {
                onWords(search.q);
                onSet({
                  q: search.q || undefined,
                  only: search.only || undefined,
                  folder: search.folder ?? undefined,
                });
              }}
              className="h-[26px] min-w-0 flex-1 truncate pl-[14px] text-left"
            >
              {search.name}
            </button>
            <button
              type="button"
              aria-label={`Let go of the search ${search.name}`}
              onClick={() =>
                orSay(change((now) => ({ ...now, searches: now.searches.filter((s) => s.id !== search.id) })))
              }
              className="grid size-[26px] place-items-center text-soft opacity-0 hover:text-ink focus-visible:opacity-100 group-hover:opacity-100"
            >
              <X size={13} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
