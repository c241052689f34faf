"use client";

import { describeDifferences } from "@/core/chains/differences";
import { layersOf } from "@/core/strips/parts/source";
import { Button } from "../kit/button";
import { HistoryButtons } from "../projects/history";
import type { Bench as BenchState } from "./use-bench";

function StateWords({ bench: { reference, differences } }: { readonly bench: BenchState }) {
  if (reference === null) return "not saved";
  if (differences.length === 0) return `version ${reference.version}, nothing changed`;
  return (
    <span className="text-edit">
      {describeDifferences(differences)} differ{differences.length === 1 ? "s" : ""} from version {reference.version}
    </span>
  );
}

/** A chain, or an instrument with nothing behind it. */
const hasSomething = ({ chain, strip, place }: BenchState): boolean =>
  chain.nodes.length > 0 || (place.layer === null && strip !== null && layersOf(strip).length > 0);

export function Header({ bench, onSave }: { readonly bench: BenchState; readonly onSave: () => void }) {
  const { strip, reference, differences, editing, isDraft } = bench;
  const name = reference?.name ?? strip?.look.name ?? "";
  const where = isDraft
    ? reference
      ? "from the library"
      : "new"
    : `${bench.place.layer === null ? "" : "effects inside "}strip ${strip?.look.name} of ${editing.body?.project.name}`;
  return (
    <header className="flex flex-none items-center gap-3">
      <div className="min-w-0">
        <h1 className="h1 truncate">{name}</h1>
        <p className="truncate text-small text-soft" aria-live="polite">
          {where} · <StateWords bench={bench} />
        </p>
      </div>
      <span className="ml-auto flex flex-none gap-2">
        <HistoryButtons editing={editing} />
        <Button
          main
          disabled={!hasSomething(bench) || (reference !== null && differences.length === 0)}
          onClick={onSave}
        >
          {reference ? "Save new version" : "Save…"}
        </Button>
      </span>
    </header>
  );
}
