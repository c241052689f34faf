"use client";

import { Search } from "lucide-react";

const FIELD = "side-library-field";

/** At once where the panel is up, so that no letter is lost; else when it has come up. */
export function focusSide(): void {
  const field = document.getElementById(FIELD);
  if (field) field.focus();
  else requestAnimationFrame(() => document.getElementById(FIELD)?.focus());
}

/** Back to the rows of the ledger. */
export const leaveSide = (): void => document.querySelector<HTMLElement>("[role=grid]")?.focus();

interface Props {
  readonly label: string;
  /** Where nothing is typed yet. */
  readonly hint: string;
  readonly words: string;
  readonly onWords: (words: string) => void;
  readonly onFocus: () => void;
}

/** Where one types what is looked for beside the ledger. */
export const SideField = ({ label, hint, words, onWords, onFocus }: Props) => (
  <div className="flex h-[50px] flex-none items-center px-3">
    <label className="flex h-[30px] w-full items-center gap-2 rounded-card border border-bound bg-card px-2 focus-within:border-live">
      <Search size={14} aria-hidden="true" className="flex-none" />
      <span className="sr-only">{label}</span>
      <input
        id={FIELD}
        value={words}
        autoComplete="off"
        placeholder={hint}
        className="min-w-0 flex-1 bg-transparent outline-none placeholder:text-soft"
        onFocus={onFocus}
        onChange={(event) => onWords(event.target.value)}
      />
    </label>
  </div>
);
