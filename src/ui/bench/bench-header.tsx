"use client";

import { ArrowLeft } from "lucide-react";
import { useRouter } from "next/navigation";
import { isOfSet } from "@/core/chains/chain";
import { sayDifferences } from "@/core/chains/differences";
import { layersOf } from "@/core/strips/parts/source";
import { useActions } from "../actions/actions";
import { Button } from "../kit/button";
import { HistoryButtons } from "../projects/history";
import { NewSound } from "./new-sound";
import type { Bench as BenchState } from "./use-bench";

function StateWords({ bench: { reference, differences, saved } }: { readonly bench: BenchState }) {
  if (reference === null) return "not saved";
  const isOld = saved?.newest != null && saved.newest > reference.version;
  const version = `version ${reference.version}${isOld ? ` of ${saved.newest}` : ""}`;
  const set = isOfSet(reference) ? ` of “${reference.name}”` : "";
  if (differences.length === 0) return `${version}, nothing changed${set && ` ·${set}`}`;
  return (
    <span className="text-edit">
      {sayDifferences(differences)} from {version}
      {set}
    </span>
  );
}

/** A chain, or an instrument with nothing behind it. */
const hasSomething = ({ chain, strip, place }: BenchState): boolean =>
  chain.nodes.length > 0 || (place.layer === null && strip !== null && layersOf(strip).length > 0);

interface Props {
  readonly bench: BenchState;
  readonly onSave: () => void;
  readonly onTakeNewest: () => void;
}

/** Out of what is inside an instrument, to the strip that plays it. */
function BackToStrip({ name, address }: { readonly name: string; readonly address: string }) {
  const router = useRouter();
  const back = () => router.push(address);
  useActions([{ id: "back-to-strip", title: `Back to ${name}`, group: "Bench", run: back }]);
  return (
    <Button title={`Back to ${name}`} onClick={back}>
      <ArrowLeft size={16} aria-hidden="true" />
      <span className="max-w-[140px] truncate">{name}</span>
    </Button>
  );
}

function whereOf({ isDraft, reference, saved, place, strip, editing }: BenchState): string {
  const { song = "", name: called = "" } = editing.body?.project ?? {};
  // A draft of a song is a strip of it, as it was once.
  if (isDraft && song !== "") return `as it was: ${called} · a copy, nothing here changes the project`;
  if (isDraft) return !reference ? "new" : saved?.isBinned ? "in the bin" : "from the library";
  const inside = place.layer === null ? "" : "effects inside ";
  // Its name stands above where it came from a set.
  const name = reference && isOfSet(reference) && inside === "" ? "" : ` ${strip?.look.name}`;
  return `${inside}strip${name} of ${editing.body?.project.name}`;
}

export function Header({ bench, onSave, onTakeNewest }: Props) {
  const { strip, reference, differences, saved, editing } = bench;
  const newer = reference && saved?.newest != null && saved.newest > reference.version ? saved.newest : null;
  // What came from a set is one strip of it.
  const whole = reference && !isOfSet(reference) ? reference : null;
  const name = whole?.name ?? strip?.look.name ?? "";
  return (
    <header className="flex flex-none flex-wrap items-center gap-x-3 gap-y-2">
      {bench.place.layer !== null && (
        <BackToStrip name={strip?.look.name ?? ""} address={bench.place.addressOf(null)} />
      )}
      <div className="min-w-0 flex-1 basis-[280px]">
        <h1 className="h1 truncate">{name}</h1>
        <p className="truncate text-small text-soft" aria-live="polite">
          {whereOf(bench)} · <StateWords bench={bench} />
        </p>
      </div>
      <span className="ml-auto flex flex-none gap-2">
        {newer !== null && <Button onClick={onTakeNewest}>Take version {newer}</Button>}
        <NewSound draft={bench.isDraft ? bench.place.project : null} />
        <HistoryButtons editing={editing} />
        <Button main disabled={!hasSomething(bench) || (whole !== null && differences.length === 0)} onClick={onSave}>
          {whole ? "Save new version" : "Save…"}
        </Button>
      </span>
    </header>
  );
}
