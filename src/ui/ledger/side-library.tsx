"use client";

import { Search } from "lucide-react";
import { useRef, useState } from "react";
import { useActions } from "../actions/actions";
import { Button } from "../kit/button";
import { Empty } from "../kit/bits";
import { PresetList } from "../library/preset-list";
import { useHearChosen, useSelection } from "../library/selection";
import { EMPTY_LISTING, useListing } from "../library/use-listing";
import { useRecall } from "../plan/recall";
import { recallActions } from "../plan/recall-actions";

const FIELD = "side-library-field";

/** At once where the panel is up, so that no letter is lost; else when it has come up. */
export function focusSideLibrary(): void {
  const field = document.getElementById(FIELD);
  if (field) field.focus();
  else requestAnimationFrame(() => document.getElementById(FIELD)?.focus());
}

/** The library beside the ledger: type, arrow, Enter. */
export function SideLibrary({ tempo }: { readonly tempo: number }) {
  const [words, setWords] = useState("");
  const [touched, setTouched] = useState(false);
  const listing = useListing({ q: words });
  const { chosen, choose, move, withChosen } = useSelection(touched ? listing : EMPTY_LISTING);
  const has = chosen !== null || (touched && listing.isOnItsWay);
  useHearChosen(chosen, tempo);
  const recall = useRecall();
  const effect = chosen && recall.effectWords(chosen);
  const list = useRef<HTMLDivElement>(null);
  useActions(recallActions(recall, { group: "Library beside", has, withChosen }));
  const keys = (event: React.KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by !== undefined && !event.shiftKey) {
      event.preventDefault();
      event.stopPropagation();
      if (touched) move(by);
      setTouched(true);
    }
    if (event.key === "Enter" && has && event.target instanceof HTMLInputElement) {
      event.preventDefault();
      withChosen(event.shiftKey ? recall.plan : recall.apply);
    }
    if (event.key === "Escape") {
      event.preventDefault();
      setWords("");
      document.querySelector<HTMLElement>("[role=grid]")?.focus();
    }
  };
  return (
    <aside aria-label="Library beside" className="flex h-full flex-col bg-card" onKeyDown={keys}>
      <div className="flex h-[58px] flex-none items-center px-3">
        <label className="flex h-[30px] w-full items-center gap-2 rounded-card border border-bound bg-card px-2 focus-within:border-live">
          <Search size={14} aria-hidden="true" className="flex-none" />
          <span className="sr-only">Find a sound to apply</span>
          <input
            id={FIELD}
            value={words}
            autoComplete="off"
            placeholder="Find a sound"
            className="min-w-0 flex-1 bg-transparent outline-none placeholder:text-soft"
            onFocus={() => setTouched(true)}
            onChange={(event) => setWords(event.target.value)}
          />
        </label>
      </div>
      <div className="flex min-h-0 flex-1 flex-col border-edge border-t">
        {listing.total > 0 ? (
          <PresetList
            narrow
            listing={listing}
            chosen={chosen?.id ?? null}
            tempo={tempo}
            onChoose={(id) => {
              setTouched(true);
              choose(id);
            }}
            onOpen={(preset) => recall.apply(preset)}
            listRef={list}
          />
        ) : (
          <Empty title={listing.isPending ? "Looking…" : "No sound matches"} className="px-3 py-6">
            {!listing.isPending && <p>Try fewer letters.</p>}
          </Empty>
        )}
      </div>
      <div className="grid flex-none grid-cols-[minmax(0,1fr)_auto] gap-2 border-edge border-t p-3">
        <p className="col-span-2 truncate text-small text-soft empty:hidden">
          {effect && `“${chosen?.card.name}” ${effect}`}
        </p>
        <Button main disabled={!has} className="justify-center" onClick={() => withChosen(recall.apply)}>
          <span className="truncate">Apply {recall.targetWords}</span>
        </Button>
        <Button
          disabled={!has}
          title="Show the plan before applying (Shift Enter)"
          onClick={() => withChosen(recall.plan)}
        >
          Plan…
        </Button>
      </div>
    </aside>
  );
}
