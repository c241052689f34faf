"use client";

import { ChevronRight, Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { passOnFromTrigger } from "../../actions/passed-on";
import { FAMILIES, FAMILY_NAMES } from "@/core/processors/model";
import { MODELS } from "@/core/processors/models";
import { quickKeyOf } from "./quick-models";

interface Props {
  readonly onAdd: (model: string) => void;
  readonly small?: boolean;
  readonly label?: string;
}

const MENU = "z-40 w-[220px] rounded-card border border-edge bg-card py-1";
const ITEM =
  "flex h-[34px] cursor-pointer items-center justify-between px-3 outline-none data-[highlighted]:bg-live-tint data-[highlighted]:text-live data-[state=open]:bg-live-tint";

/** What stands in a chain: everything but what plays. */
const EFFECTS = FAMILIES.filter((family) => family !== "instrument");

/** Every effect, by its family; a digit beside the ones that a key adds. */
export function AddPlugin({ onAdd, small = false, label = "Add plugin" }: Props) {
  return (
    <DropdownMenu.Root>
      {small ? (
        <DropdownMenu.Trigger
          onKeyDown={passOnFromTrigger}
          aria-label={label}
          title={label}
          className="mt-[6px] grid size-[22px] flex-none place-items-center rounded-card border border-edge border-dashed text-soft hover:border-ink hover:text-ink"
        >
          <Plus size={13} aria-hidden="true" />
        </DropdownMenu.Trigger>
      ) : (
        <DropdownMenu.Trigger
          id="add-plugin"
          onKeyDown={passOnFromTrigger}
          className="flex h-[50px] flex-none items-center gap-2 rounded-card border border-edge border-dashed px-3 whitespace-nowrap text-soft hover:border-ink hover:text-ink"
        >
          <Plus size={16} aria-hidden="true" /> Add plugin
        </DropdownMenu.Trigger>
      )}
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={4} className={MENU}>
          {EFFECTS.map((family) => (
            <DropdownMenu.Sub key={family}>
              <DropdownMenu.SubTrigger className={ITEM}>
                {FAMILY_NAMES[family]}
                <ChevronRight size={14} aria-hidden="true" className="text-soft" />
              </DropdownMenu.SubTrigger>
              <DropdownMenu.Portal>
                <DropdownMenu.SubContent className={MENU} alignOffset={-5}>
                  {MODELS.filter((model) => model.family === family).map((model) => (
                    <DropdownMenu.Item key={model.id} onSelect={() => onAdd(model.id)} className={ITEM}>
                      {model.name}
                      {quickKeyOf(model.id) && <kbd className="num-small text-soft">{quickKeyOf(model.id)}</kbd>}
                    </DropdownMenu.Item>
                  ))}
                </DropdownMenu.SubContent>
              </DropdownMenu.Portal>
            </DropdownMenu.Sub>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
