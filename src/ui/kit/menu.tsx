"use client";

import { ContextMenu as Context, DropdownMenu } from "radix-ui";
import { cx } from "./class-names";
import { passOnFromTrigger } from "../actions/passed-on";
import { Fragment, type ReactNode } from "react";

export interface MenuItem {
  readonly id: string;
  readonly label: ReactNode;
  /** At the right edge: the key that does the same, a date. */
  readonly beside?: ReactNode;
  readonly disabled?: boolean;
  readonly onChoose: () => void;
}

/** Items that belong together, under a word where they need one. */
export interface MenuGroup {
  readonly id: string;
  readonly head?: string;
  readonly items: readonly MenuItem[];
}

const LIST = "z-40 min-w-[240px] max-w-[340px] overflow-auto rounded-card border border-edge bg-card py-1";
const ITEM =
  "flex min-h-[30px] cursor-pointer items-center gap-3 px-3 outline-none data-[highlighted]:bg-live-tint data-[highlighted]:text-live data-[disabled]:cursor-default data-[disabled]:opacity-50";
const HEAD = "px-3 pt-2 pb-1 text-small text-soft";
const RULE = "my-1 h-px bg-rule";

const content = ({ label, beside }: MenuItem): ReactNode => (
  <>
    <span className="min-w-0 flex-1 truncate">{label}</span>
    {beside !== undefined && <span className="num-small flex-none text-soft">{beside}</span>}
  </>
);

/** What both kinds of list are made of. */
interface Parts {
  readonly Item: typeof DropdownMenu.Item | typeof Context.Item;
  readonly Label: typeof DropdownMenu.Label | typeof Context.Label;
  readonly Separator: typeof DropdownMenu.Separator | typeof Context.Separator;
}

function Groups({ groups, parts: { Item, Label, Separator } }: { groups: readonly MenuGroup[]; parts: Parts }) {
  return groups
    .filter(({ items }) => items.length > 0)
    .map(({ id, head, items }, at) => (
      <Fragment key={id}>
        {at > 0 && <Separator className={RULE} />}
        {head !== undefined && <Label className={HEAD}>{head}</Label>}
        {items.map((item) => (
          <Item key={item.id} disabled={item.disabled ?? false} onSelect={item.onChoose} className={ITEM}>
            {content(item)}
          </Item>
        ))}
      </Fragment>
    ));
}

interface Props {
  /** The button that opens it. */
  readonly trigger: ReactNode;
  readonly items?: readonly MenuItem[];
  /** In place of items, where they are of several kinds. */
  readonly groups?: readonly MenuGroup[];
  /** Which edge of the button it stands under. */
  readonly align?: "start" | "end";
  readonly onOpen?: () => void;
  /** It is open as soon as it is there: it came when it was first asked for. */
  readonly startsOpen?: boolean;
}

/** Lists of things of which one is chosen, under the button that opened them. */
export function Menu({
  trigger,
  items = [],
  groups = [{ id: "all", items }],
  align = "start",
  onOpen,
  startsOpen = false,
}: Props) {
  return (
    <DropdownMenu.Root defaultOpen={startsOpen} onOpenChange={(open) => open && onOpen?.()}>
      <DropdownMenu.Trigger asChild onKeyDown={passOnFromTrigger}>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          sideOffset={4}
          className={cx(LIST, "max-h-[min(480px,var(--radix-dropdown-menu-content-available-height))]")}
        >
          <Groups groups={groups} parts={DropdownMenu} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

interface OverProps {
  /** One element, on which a right-click, or the key for it, opens the list. */
  readonly children: ReactNode;
  readonly groups: readonly MenuGroup[];
  readonly disabled?: boolean;
}

/** The same lists where the pointer is. */
export function MenuOver({ children, groups, disabled = false }: OverProps) {
  return (
    <Context.Root>
      <Context.Trigger asChild disabled={disabled}>
        {children}
      </Context.Trigger>
      <Context.Portal>
        <Context.Content className={cx(LIST, "max-h-[min(480px,var(--radix-context-menu-content-available-height))]")}>
          <Groups groups={groups} parts={Context} />
        </Context.Content>
      </Context.Portal>
    </Context.Root>
  );
}
