"use client";

import { Command } from "cmdk";
import { type ReactNode, useRef, useState } from "react";
import { areBegun, fold, wordsOf } from "@/core/names/words";

export interface Quick {
  readonly id: string;
  readonly label: string;
  readonly mark?: ReactNode;
  /** At the right edge: how many have it, that it is so now. */
  readonly beside?: ReactNode;
}

interface Props {
  readonly label: string;
  readonly placeholder: string;
  readonly items: readonly Quick[];
  /** How what is typed is called where no item is; null where nothing new can be made. */
  readonly fresh: (typed: string) => string | null;
  /** `also`: with Ctrl. */
  readonly onPick: (id: string, also: boolean) => void;
  /** False where nothing comes of it: what is typed stays. */
  readonly onFresh: (typed: string, also: boolean) => unknown;
}

const ITEM =
  "flex min-h-[28px] cursor-pointer items-center gap-2 rounded-card px-2 data-[selected=true]:bg-live-tint data-[selected=true]:text-live";

/** Rows that are drawn: more are narrowed by typing. */
const MOST_DRAWN = 200;

const has = ({ label }: Quick, typed: readonly string[]): boolean => areBegun(typed, wordsOf(label));

/** A list that narrows as one types; Enter takes the one that is marked, or makes what is typed. */
export function QuickList({ label, placeholder, items, fresh, onPick, onFresh }: Props) {
  const [typed, setTyped] = useState("");
  // The list does not say how one of its lines was taken.
  const also = useRef(false);
  const told = ({ ctrlKey, metaKey }: { readonly ctrlKey: boolean; readonly metaKey: boolean }) => {
    also.current = ctrlKey || metaKey;
  };
  const name = typed.trim();
  const words = wordsOf(name);
  const found = items.filter((item) => has(item, words));
  // Exactly what is typed comes first.
  const same = found.find((item) => fold(item.label) === fold(name));
  const shown = [...(same ? [same] : []), ...found.filter((item) => item !== same)].slice(0, MOST_DRAWN);
  const made = same || name === "" ? null : fresh(name);
  return (
    <Command
      label={label}
      shouldFilter={false}
      onKeyDownCapture={told}
      onPointerUpCapture={told}
      className="grid min-h-0 gap-2"
    >
      <Command.Input
        autoFocus
        value={typed}
        onValueChange={setTyped}
        placeholder={placeholder}
        aria-label={label}
        className="h-[30px] rounded-card border border-bound bg-ground px-[10px] outline-none placeholder:text-soft focus:border-live"
      />
      <Command.List className="max-h-[300px] overflow-auto">
        {shown.map((item) => (
          <Command.Item key={item.id} value={item.id} onSelect={() => onPick(item.id, also.current)} className={ITEM}>
            {item.mark}
            <span className="min-w-0 flex-1 truncate">{item.label}</span>
            <span className="num-small flex-none text-soft">{item.beside}</span>
          </Command.Item>
        ))}
        {found.length > shown.length && (
          <p className="px-2 py-1 text-small text-soft">{found.length - shown.length} more: type how it begins.</p>
        )}
        {made !== null && (
          <Command.Item
            value={`new ${name}`}
            onSelect={() => {
              if (onFresh(name, also.current) !== false) setTyped("");
            }}
            className={ITEM}
          >
            {made}
          </Command.Item>
        )}
      </Command.List>
    </Command>
  );
}
