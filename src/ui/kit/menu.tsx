"use client";

import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  /** The button that opens it. */
  readonly trigger: ReactNode;
  readonly items: readonly { readonly id: string; readonly label: ReactNode; readonly onChoose: () => void }[];
  /** Which edge of the button it stands under. */
  readonly align?: "start" | "end";
}

/** A list of things of which one is chosen, under the button that opened it. */
export function Menu({ trigger, items, align = "start" }: Props) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          sideOffset={4}
          className="z-40 max-h-[320px] w-[220px] overflow-auto rounded-card border border-edge bg-card py-1"
        >
          {items.map(({ id, label, onChoose }) => (
            <DropdownMenu.Item
              key={id}
              onSelect={onChoose}
              className="flex h-[34px] cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-live-tint data-[highlighted]:text-live"
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
