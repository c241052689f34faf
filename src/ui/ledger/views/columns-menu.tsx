"use client";

import { Columns3 } from "lucide-react";
import { Menu, type MenuGroup } from "../../kit/menu";
import type { Columns } from "./columns";
import { COLUMNS } from "./layout";
import { FOOT_BUTTON } from "./foot-button";

/** Which columns are shown, and in what order. */
export function ColumnsMenu({ columns }: { readonly columns: Columns }) {
  const groups: readonly MenuGroup[] = [
    {
      id: "shown",
      head: "Shown",
      items: columns.all
        .filter((id) => id !== "look")
        .map((id) => {
          const on = columns.shown.includes(id);
          return { id, label: COLUMNS[id].title, beside: on ? "shown" : "", onChoose: () => columns.show(id, !on) };
        }),
    },
    {
      id: "moved",
      head: "Further left",
      items: columns.shown
        .slice(2)
        .map((id) => ({ id: `left-${id}`, label: COLUMNS[id].title, onChoose: () => columns.moveLeft(id) })),
    },
    {
      id: "all",
      items: [{ id: "reset", label: "As they were drawn", disabled: columns.isAsDrawn, onChoose: columns.reset }],
    },
  ];
  return (
    <Menu
      align="end"
      trigger={
        <button type="button" className={FOOT_BUTTON}>
          <Columns3 size={14} aria-hidden="true" />
          Columns
        </button>
      }
      groups={groups}
    />
  );
}
