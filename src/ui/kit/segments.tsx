"use client";

import { ToggleGroup } from "radix-ui";
import { cx } from "./class-names";

interface Option<T extends string> {
  readonly value: T;
  readonly label: string;
  readonly disabled?: boolean;
  readonly title?: string;
}

interface Props<T extends string> {
  readonly label: string;
  readonly options: readonly Option<T>[];
  readonly value: T;
  readonly onChange: (value: T) => void;
  readonly small?: boolean;
  /** Where there is hardly room beside each other. */
  readonly tight?: boolean;
}

const ITEM =
  "border-edge not-first:border-l text-soft data-[state=on]:bg-live-tint data-[state=on]:text-live hover:not-disabled:text-ink disabled:opacity-50 focus-visible:z-10";

/** One of a few, all of them in sight. */
export function Segments<T extends string>({ label, options, value, onChange, small, tight }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next !== "" && onChange(next as T)}
      className="inline-flex w-fit max-w-full flex-wrap rounded-card border border-edge bg-card"
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          disabled={option.disabled ?? false}
          title={option.title}
          className={cx(
            ITEM,
            "relative",
            tight ? "px-[5px] py-px text-small whitespace-nowrap" : small ? "px-[10px] py-px" : "px-[11px] py-[3px]",
          )}
        >
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

interface ManyProps<T extends string> {
  readonly label: string;
  readonly options: readonly Option<T>[];
  readonly values: readonly T[];
  readonly onChange: (values: readonly T[]) => void;
}

/** Any of a few, all of them in sight. */
export function ManySegments<T extends string>({ label, options, values, onChange }: ManyProps<T>) {
  return (
    <ToggleGroup.Root
      type="multiple"
      aria-label={label}
      value={[...values]}
      onValueChange={(next) => onChange(next as T[])}
      className="inline-flex w-fit rounded-card border border-edge bg-card"
    >
      {options.map((option) => (
        <ToggleGroup.Item key={option.value} value={option.value} className={cx(ITEM, "relative px-[11px] py-[3px]")}>
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
