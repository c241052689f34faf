"use client";

import { Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import { passOn } from "../actions/passed-on";

interface Props {
  readonly label: string;
  readonly on: boolean;
  readonly onChange: (on: boolean) => void;
}

/** A box that is ticked, in a table whose heading says what for. */
export function Tick({ label, on, onChange }: Props) {
  return (
    <Checkbox.Root
      aria-label={label}
      checked={on}
      onCheckedChange={(next) => onChange(next === true)}
      onKeyDown={(event) => (event.ctrlKey || event.metaKey || event.altKey) && passOn(event)}
      className="grid size-[15px] flex-none place-items-center rounded-[2px] border-[1.5px] border-bound data-[state=checked]:border-live"
    >
      <Checkbox.Indicator className="text-live">
        <Check size={11} strokeWidth={3} aria-hidden="true" />
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
}
