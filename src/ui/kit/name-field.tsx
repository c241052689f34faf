"use client";

import { inPlaceKeys } from "./in-place";
import { cx } from "./class-names";

interface Props {
  /** What the name is of: what was typed for one thing does not stand there for the next. */
  readonly of: string;
  readonly label: string;
  readonly name: string;
  readonly large?: boolean;
  readonly placeholder?: string;
  readonly onName: (name: string) => void;
}

/** A name, typed over in place: Enter or leaving keeps it, Escape does not. An emptied field calls back with "". */
export function NameField({ of, label, name, large = false, placeholder, onName }: Props) {
  return (
    <input
      key={`${of} ${name}`}
      aria-label={label}
      defaultValue={name}
      placeholder={placeholder}
      maxLength={200}
      size={Math.max(6, (name === "" ? (placeholder ?? "") : name).length)}
      className={cx(
        "-mx-1 max-w-[calc(100%+8px)] min-w-0 text-ellipsis rounded-card bg-transparent px-1 placeholder:text-soft hover:bg-sunk focus:bg-card",
        large && "font-name text-[18px] leading-6",
      )}
      onKeyDown={inPlaceKeys(name)}
      onBlur={(event) => {
        const typed = event.target.value.trim();
        // Where nothing takes the name away, it is still called that.
        if (typed === "") event.target.value = name;
        if (typed !== name) onName(typed);
      }}
    />
  );
}
