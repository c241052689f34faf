"use client";

import { Switch } from "radix-ui";
import { useId } from "react";

interface Props {
  readonly label: string;
  /** For a screen reader, where the word beside the switch is only "On". */
  readonly name?: string;
  readonly on: boolean;
  readonly onChange: (on: boolean) => void;
  readonly disabled?: boolean;
}

/** A plain switch with a word. */
export function Toggle({ label, name, on, onChange, disabled = false }: Props) {
  const id = useId();
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap">
      <Switch.Root
        id={id}
        aria-label={name}
        checked={on}
        disabled={disabled}
        onCheckedChange={onChange}
        className="relative h-[14px] w-[26px] rounded-full border-[1.5px] border-bound data-[state=checked]:border-live disabled:opacity-50"
      >
        <Switch.Thumb className="absolute top-[1.5px] left-[2px] block size-2 rounded-full bg-bound transition-transform duration-100 data-[state=checked]:translate-x-[11px] data-[state=checked]:bg-live" />
      </Switch.Root>
      <label htmlFor={id}>{label}</label>
    </span>
  );
}
