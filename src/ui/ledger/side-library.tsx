"use client";

import { useRef, useState } from "react";
import { useActions } from "../actions/actions";
import { Button } from "../kit/button";
import { Empty } from "../kit/bits";
import { PresetList } from "../library/preset-list";
import { useHearChosen, useSelection } from "../library/selection";
import { EMPTY_LISTING, useListing } from "../library/use-listing";
import { Segments } from "../kit/segments";
import { useRecall } from "../plan/recall";
import { recallActions } from "../plan/recall-actions";
import { SideField, leaveSide } from "./side-field";
import { SideStrips } from "./side-strips";

type Shown = "sounds" | "strips";

/** What can be brought to the strips beside it: sounds of the library, or strips of any project. */
export function SideLibrary({ tempo }: { readonly tempo: number }) {
  const [shown, setShown] = useState<Shown>("sounds");
  return (
    <aside aria-label="Library beside" className="flex h-full flex-col bg-card">
      <div className="flex-none px-3 pt-[10px]">
        <Segments
          tight
          small
          label="Shown beside"
          value={shown}
          onChange={setShown}
          options={[
            { value: "sounds", label: "Sounds" },
            { value: "strips", label: "Strips of projects" },
          ]}
        />
      </div>
      {shown === "sounds" ? <SideSounds tempo={tempo} /> : <SideStrips />}
    </aside>
  );
}

/** The library beside the ledger: type, arrow, Enter. */
function SideSounds({ tempo }: { readonly tempo: number }) {
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
      leaveSide();
    }
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col" onKeyDown={keys}>
      <SideField
        label="Find a sound to apply"
        hint="Find a sound"
        words={words}
        onWords={setWords}
        onFocus={() => setTouched(true)}
      />
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
    </div>
  );
}
