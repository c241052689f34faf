"use client";

import { useQueries } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { formatCount } from "@/core/names/count";

/** What is missing, as searches: they stand in the field once they are chosen, and show how to ask for the like. */
const READY = [
  ["Not filed", "-folder:* pack:own"],
  ["Not tagged", "-tag:* pack:own"],
  ["Not rated", "rating:0 pack:own"],
  ["Never used", "-used:* pack:own"],
  ["Changed since used", "used:changed"],
] as const;

interface Props {
  readonly words: string;
  readonly onWords: (words: string) => void;
}

/** Searches for what is still to be done, each with how many there are. */
export function ReadySearches({ words, onWords }: Props) {
  const totals = useQueries({
    queries: READY.map(([, q]) => ({
      queryKey: [...KEYS.presets, "ready", q],
      queryFn: () => api.listPresets({ q, limit: 1 }),
    })),
  });
  return (
    <ul>
      {READY.map(([label, q], at) => (
        <li key={q}>
          <button
            type="button"
            title={q}
            aria-pressed={words === q}
            onClick={() => onWords(words === q ? "" : q)}
            className={`flex h-[26px] w-full items-center gap-2 px-[14px] text-left hover:bg-sunk ${words === q ? "row-chosen" : ""}`}
          >
            <span className="min-w-0 flex-1 truncate">{label}</span>
            <span className="num-small text-soft">{totals[at]?.data && formatCount(totals[at].data.total)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
