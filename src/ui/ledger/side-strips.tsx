"use client";

import { useEffect, useState } from "react";
import { counted } from "@/core/names/count";
import { Button } from "../kit/button";
import { Empty } from "../kit/bits";
import { hear } from "../listening/listening";
import { soundOfStrip } from "../listening/strip-sound";
import { useRecall } from "../plan/recall";
import { StripList } from "../strips/strip-list";
import { EVERYWHERE, type Where, useStripList } from "../strips/use-strip-list";
import { WhereFrom } from "../strips/where-from";
import { SideField, leaveSide } from "./side-field";

/** Strips of any project beside the ledger: type, arrow, Enter. What is chosen goes by way of the plan. */
export function SideStrips() {
  const [words, setWords] = useState("");
  const [touched, setTouched] = useState(false);
  const [where, setWhere] = useState<Where>(EVERYWHERE);
  const list = useStripList(words, where);
  const { here, chosen, brought, choose, at } = list;
  const recall = useRecall();
  const bring = () => {
    if (brought && touched) recall.bring(brought);
  };
  const heard = touched ? here : null;
  useEffect(() => {
    if (heard) hear(soundOfStrip(heard.strip, heard.tempo));
  }, [heard]);
  const keys = (event: React.KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (event.target instanceof HTMLSelectElement) return;
    if (by !== undefined) {
      event.preventDefault();
      event.stopPropagation();
      if (touched) choose(at + by, event.shiftKey ? "upTo" : "only");
      setTouched(true);
    }
    if (event.key === "Enter") {
      event.preventDefault();
      event.stopPropagation();
      bring();
    }
    if (event.key === "Escape") {
      event.preventDefault();
      event.stopPropagation();
      setWords("");
      leaveSide();
    }
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col" onKeyDown={keys}>
      <SideField
        label="Find a strip of any project"
        hint="Find a strip"
        words={words}
        onWords={setWords}
        onFocus={() => setTouched(true)}
      />
      <WhereFrom where={where} onWhere={setWhere} />
      <div className="flex min-h-0 flex-1 flex-col border-edge border-t" onPointerDown={() => setTouched(true)}>
        {list.rows.length > 0 ? (
          <StripList list={list} onOpen={bring} isOfOne={where.project !== null} />
        ) : (
          <Empty title={list.isPending ? "Looking…" : "No strip matches"} className="px-3 py-6">
            {list.error ? <p role="alert">{list.error.message}</p> : !list.isPending && <p>Try fewer letters.</p>}
          </Empty>
        )}
        {list.total > list.rows.length && (
          <p className="px-3 py-2 text-small text-soft">
            {list.rows.length} of {counted(list.total, "strip")}: type more to find others.
          </p>
        )}
      </div>
      <div className="flex-none border-edge border-t p-3">
        <Button main disabled={!brought || !touched} className="w-full justify-center" onClick={bring}>
          <span className="truncate">
            Plan {chosen.length > 1 ? `${chosen.length} strips ` : ""}
            {recall.targetWords}…
          </span>
        </Button>
      </div>
    </div>
  );
}
