"use client";

import { Command } from "cmdk";
import { type KeyboardEvent, useState } from "react";
import { fold } from "@/core/names/words";
import { Chip } from "./bits";
import { cx } from "./class-names";

interface Props {
  readonly label: string;
  /** Several in one line, as they are kept: "Copper Heron; Tidal Clocks". */
  readonly value: string;
  /** Takes a line apart. */
  readonly split: (text: string) => readonly string[];
  /** What stands between them: a sign that, typed, ends one, and a blank. */
  readonly between: "; " | ", ";
  readonly autoFocus?: boolean;
  readonly disabled?: boolean;
  readonly placeholder?: string;
  /** What is known already, by what is typed; it is offered, and written as it is known. */
  readonly known: readonly string[];
  readonly onTyped: (begun: string) => void;
  readonly onFocus?: () => void;
  readonly onValue: (value: string) => void;
}

/** As many as are offered at once. */
const MOST_OFFERED = 8;

interface Own {
  /** Names and what is typed, as the field was last told of them. */
  readonly value: string;
  readonly names: readonly string[];
  readonly typed: string;
}

const isSame = (a: string, b: string): boolean => fold(a) === fold(b);

/** Each name once, whatever its case: the first stays. */
const once = (names: readonly string[]): readonly string[] =>
  names.filter((name, at) => names.findIndex((other) => isSame(other, name)) === at);

/**
 * Several names, each a chip of its own. Enter makes one of what is typed, or of what is marked of those that are known; with
 * nothing typed it is for the sheet. Backspace in an empty field takes the last one off. What is typed counts as it stands:
 * nothing moves when the field is left, under a hand that is on its way to a button.
 */
export function SeveralField(props: Props) {
  const { label, value, split, between, autoFocus = false, disabled = false, placeholder, known } = props;
  const { onTyped, onFocus, onValue } = props;
  const [own, setOwn] = useState<Own>({ value, names: once(split(value)), typed: "" });
  // Filled in anew by another: a sheet that was told of a newer card.
  if (own.value !== value) setOwn({ value, names: once(split(value)), typed: "" });
  const { names, typed } = own;
  const name = typed.trim();
  const asKnown = (one: string): string => known.find((other) => isSame(other, one)) ?? one;
  const others = known.filter((one) => !names.includes(one)).slice(0, MOST_OFFERED);
  const offered = [...(others.some((one) => isSame(one, name)) ? [] : [name]), ...others];
  const put = (next: readonly string[], text: string) => {
    const all = once([...next, ...split(text).map(asKnown)]).join(between);
    setOwn({ value: all, names: next, typed: text });
    onTyped(text);
    onValue(all);
  };
  const add = (text: string) => put(once([...names, ...split(text).map(asKnown)]), "");
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    if (name !== "") return;
    if (event.key === "Backspace" && typed === "" && names.length > 0) put(names.slice(0, -1), "");
    if (event.key !== "Enter") return;
    // The list takes Enter for itself, also where it is not there.
    event.preventDefault();
    event.currentTarget.closest("form")?.requestSubmit();
  };
  return (
    <Command shouldFilter={false} label={label} onKeyDown={onKeyDown} className="group relative min-w-0">
      <span
        className={cx(
          "flex min-h-[30px] min-w-0 flex-wrap items-center gap-1 rounded-card border px-[6px] py-[3px] focus-within:border-live",
          disabled ? "border-edge" : "border-bound bg-ground",
        )}
      >
        {names.map((one) => (
          <Chip
            key={one}
            label={one}
            {...(disabled
              ? {}
              : {
                  onRemove: () =>
                    put(
                      names.filter((other) => other !== one),
                      typed,
                    ),
                })}
          >
            {one}
          </Chip>
        ))}
        <Command.Input
          aria-label={label}
          autoFocus={autoFocus}
          disabled={disabled}
          maxLength={200}
          placeholder={names.length === 0 ? placeholder : ""}
          value={typed}
          onValueChange={(text) => (text.includes(between.trim()) ? add(text) : put(names, text))}
          onFocus={onFocus}
          className="min-w-[60px] flex-1 bg-transparent px-1 outline-none placeholder:text-soft"
        />
      </span>
      {/* Always there, since the field names it as its list. */}
      <Command.List
        // The press must not take the hand out of the field.
        onMouseDown={(event) => event.preventDefault()}
        className={cx(
          "absolute inset-x-0 top-full z-10 hidden max-h-[240px] overflow-auto rounded-card border border-edge bg-card py-1",
          name !== "" && "group-focus-within:block",
        )}
      >
        {(name === "" ? [] : offered).map((one) => (
          <Command.Item
            key={one}
            value={one}
            onSelect={() => add(one)}
            className="flex min-h-[26px] cursor-pointer items-center px-2 data-[selected=true]:bg-live-tint data-[selected=true]:text-live"
          >
            <span className="truncate">{one}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
