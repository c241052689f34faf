"use client";

import { Ellipsis } from "lucide-react";
import { type Mix, mixTitle } from "@/core/projects/mixes";
import { Key } from "../kit/bits";
import { cx } from "../kit/class-names";
import { formatDay, formatMoment } from "../kit/dates";
import { Menu } from "../kit/menu";

/** What can be done with one of them, beside looking at it. */
export interface MixActs {
  readonly onEdit: (mix: Mix) => void;
  readonly onSave: (mix: Mix) => void;
  readonly onBegin: (mix: Mix) => void;
  readonly onRemove: (mix: Mix) => void;
}

interface Props extends MixActs {
  /** The earliest first. */
  readonly mixes: readonly Mix[];
  readonly at: number;
  readonly beside: number | null;
  readonly onAt: (n: number) => void;
}

/** As many as there are digits to look at them by. */
export const MIX_KEYS = 9;

/** The mixes that are kept of a project, each by its digit. */
export function MixesList({ mixes, at, beside, onAt, onEdit, onSave, onBegin, onRemove }: Props) {
  return (
    <section aria-label="Kept mixes" className="flex-none border-edge border-t">
      <h2 className="h2 px-[14px] pt-3 pb-1">Kept mixes</h2>
      <ul className="max-h-[186px] overflow-auto">
        {mixes.map((mix, place) => (
          <li
            key={mix.id}
            className={cx(
              "flex min-h-[31px] items-center gap-2 border-rule border-b pr-[6px] pl-[14px]",
              mix.n === at ? "row-chosen" : "hover:bg-sunk/60",
            )}
          >
            <button
              type="button"
              aria-pressed={mix.n === at}
              title={[mixTitle(mix), formatMoment(mix.at), mix.note].filter((words) => words !== "").join("\n")}
              onClick={() => onAt(mix.n)}
              className="flex min-w-0 flex-1 items-center gap-2 self-stretch text-left"
            >
              <span className="w-[20px] flex-none">{place < MIX_KEYS && <Key>{place + 1}</Key>}</span>
              <span className="min-w-0 truncate">{mixTitle(mix)}</span>
              <span className="num-small ml-auto flex-none text-soft">{formatDay(mix.at, new Date())}</span>
              {mix.n === beside && <span className="flex-none text-edit text-small">beside</span>}
            </button>
            <MixMenu {...{ mix, onEdit, onSave, onBegin, onRemove }} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const MixMenu = ({ mix, onEdit, onSave, onBegin, onRemove }: MixActs & { readonly mix: Mix }) => (
  <Menu
    align="end"
    trigger={
      <button
        type="button"
        aria-label={`What to do with ${mix.name}`}
        className="flex size-[24px] flex-none items-center justify-center rounded-card text-soft hover:bg-sunk hover:text-ink"
      >
        <Ellipsis size={16} aria-hidden="true" />
      </button>
    }
    groups={[
      {
        id: "mix",
        items: [
          { id: "edit", label: "Name, take and note…", onChoose: () => onEdit(mix) },
          { id: "save", label: "Save to the library as a whole mix…", onChoose: () => onSave(mix) },
          { id: "begin", label: "Begin a new project from it…", onChoose: () => onBegin(mix) },
        ],
      },
      { id: "remove", items: [{ id: "remove", label: "Remove", onChoose: () => onRemove(mix) }] },
    ]}
  />
);
