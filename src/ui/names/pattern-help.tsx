"use client";

import { type KeyboardEvent, type RefObject, useState } from "react";
import { type Named, PATTERN_FIELDS, applyPattern } from "@/core/library/pattern";
import { type PatternHelp as Help, patternHelp } from "@/core/library/pattern-help";
import { cx } from "../kit/class-names";

interface Asked {
  readonly field: RefObject<HTMLInputElement | null>;
  readonly pattern: string;
  readonly onPattern: (pattern: string) => void;
}

/** What the pattern in a field can go on with, walked by the arrows and taken by Enter or Tab while the hand is between braces. */
export function usePatternHelp({ field, pattern, onPattern }: Asked) {
  const [hand, setHand] = useState<number | null>(null);
  const [marked, setMarked] = useState(0);
  const help = hand === null ? null : patternHelp(pattern, hand);
  const at = help && help.offers.length > 0 ? Math.min(marked, help.offers.length - 1) : -1;
  const place = () => {
    setHand(field.current?.selectionStart ?? null);
    setMarked(0);
  };
  /** Puts words in the place of a stretch; the hand goes on behind them. */
  const put = (words: string, from: number, to: number) => {
    onPattern(pattern.slice(0, from) + words + pattern.slice(to));
    setMarked(0);
    // The field has its new text only after it was drawn.
    setTimeout(() => {
      field.current?.focus();
      field.current?.setSelectionRange(from + words.length, from + words.length);
      setHand(from + words.length);
    });
  };
  const take = (n: number) => {
    const offer = help?.offers[n];
    if (help && offer) put(offer.insert, help.from, help.to);
  };
  const add = (name: string) => {
    const words = `{${name}}`;
    const end = field.current === document.activeElement && hand !== null ? hand : pattern.length;
    const gap = end > 0 && !/\s$/.test(pattern.slice(0, end)) ? " " : "";
    put(gap + words, end, end);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (!help || at < 0) return;
    const { key, shiftKey, ctrlKey, altKey, metaKey } = event;
    if (shiftKey || ctrlKey || altKey || metaKey) return;
    if (key === "ArrowDown" || key === "ArrowUp")
      setMarked((at + (key === "ArrowDown" ? 1 : help.offers.length - 1)) % help.offers.length);
    else if (key === "Enter" || key === "Tab") take(at);
    else return;
    event.preventDefault();
  };
  return { help, at, take, add, handlers: { onKeyDown, onSelect: place, onBlur: () => setHand(null) } };
}

interface Props {
  readonly help: Help | null;
  /** Which is marked; −1 for none. */
  readonly at: number;
  /** By which it is shown what each gives. */
  readonly named: Named | null;
  readonly onTake: (n: number) => void;
  /** Adds a field, where the hand is not within one; without it nothing is shown there. */
  readonly onAdd?: (field: string) => void;
}

/** All fields; within braces, what can stand there, with what it means and what it gives the first sound. */
export function PatternHelp({ help, at, named, onTake, onAdd }: Props) {
  // The press must not take the hand out of the field.
  const keepHand = (event: { preventDefault: () => void }) => event.preventDefault();
  if (help === null || help.offers.length === 0)
    return onAdd ? (
      <p className="flex flex-wrap gap-1" onPointerDown={keepHand} onMouseDown={keepHand}>
        {Object.entries(PATTERN_FIELDS).map(([field, meaning]) => (
          <button
            key={field}
            type="button"
            title={meaning}
            onClick={() => onAdd(field)}
            className="num-small rounded-card border border-edge px-[6px] leading-[20px] text-soft hover:border-ink hover:text-ink"
          >
            {`{${field}}`}
          </button>
        ))}
      </p>
    ) : null;
  return (
    <ul aria-label="What can stand here" className="grid grid-cols-2 gap-x-4" onMouseDown={keepHand}>
      {help.offers.map(({ label, meaning, shows }, n) => {
        const gives = shows && named ? applyPattern(shows, named, 1) : "";
        return (
          <li key={label}>
            <button
              type="button"
              tabIndex={-1}
              onClick={() => onTake(n)}
              aria-current={n === at}
              className={cx(
                "grid min-h-[22px] w-full grid-cols-[128px_minmax(0,1fr)] items-baseline gap-2 rounded-card px-[6px] text-left text-small",
                n === at ? "bg-live-tint text-live" : "hover:bg-sunk",
              )}
            >
              <span className="num-small">{label}</span>
              <span className="truncate">
                <span className={n === at ? "" : "text-soft"}>{meaning}</span>
                {gives !== "" && <span className="name"> {gives}</span>}
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
