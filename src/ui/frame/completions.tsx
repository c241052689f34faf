"use client";

import { type KeyboardEvent, useId, useState } from "react";
import type { Completion } from "@/core/search/complete";
import { Key } from "../kit/bits";
import { cx } from "../kit/class-names";

/** Which completion is on offer, and the keys that walk them, take one or send them away. */
export function useCompletions(list: readonly Completion[], onTake: (text: string) => void) {
  const id = useId();
  const [at, setAt] = useState(0);
  const [sentAway, setSentAway] = useState<readonly Completion[] | null>(null);
  const labels = list.map((c) => c.text).join("\n");
  const isAway = sentAway?.map((c) => c.text).join("\n") === labels;
  const shown = isAway ? [] : list;
  const now = shown[Math.min(at, shown.length - 1)];
  const take = (completion: Completion) => {
    setAt(0);
    onTake(completion.text);
  };
  /** True where the key was for the completions. */
  const onKeyDown = (event: KeyboardEvent): boolean => {
    if (!now) return false;
    const isValue = now.of === "value";
    if (event.key === "Tab" && !event.shiftKey) take(now);
    else if (event.key === "Enter" && isValue) take(now);
    else if (event.key === "ArrowDown" && isValue) setAt(Math.min(shown.length - 1, at + 1));
    else if (event.key === "ArrowUp" && isValue) setAt(Math.max(0, at - 1));
    else if (event.key === "Escape") setSentAway(list);
    else return false;
    event.preventDefault();
    return true;
  };
  return { id, shown, now, take, onKeyDown };
}

type State = ReturnType<typeof useCompletions>;

const optionId = (id: string, at: number): string => `${id}-${at}`;

/** What a screen reader is told of the field that has completions. */
export const completionProps = ({ id, shown, now }: State) => ({
  role: "combobox",
  "aria-autocomplete": "list" as const,
  "aria-expanded": shown.length > 0,
  "aria-controls": id,
  "aria-activedescendant": now ? optionId(id, shown.indexOf(now)) : undefined,
});

/** The ways to go on, below the field. */
export function Completions({ id, shown, now, take }: State) {
  return (
    <ul
      id={id}
      role="listbox"
      aria-label="Ways to go on"
      hidden={shown.length === 0}
      className="absolute inset-x-0 top-[34px] z-40 rounded-card border border-edge bg-card py-1"
    >
      {shown.map((completion, at) => (
        <li
          key={completion.text}
          id={optionId(id, at)}
          role="option"
          aria-selected={completion === now}
          onMouseDown={(event) => {
            event.preventDefault();
            take(completion);
          }}
          className={cx(
            "flex min-h-[30px] cursor-default items-center gap-3 px-3",
            completion === now && "bg-live-tint text-live",
          )}
        >
          <span className={cx("min-w-0 flex-1 truncate", completion.of === "field" && "num")}>{completion.label}</span>
          <span className="truncate text-small text-soft">{completion.aside}</span>
          {completion === now && <Key>Tab</Key>}
        </li>
      ))}
    </ul>
  );
}
