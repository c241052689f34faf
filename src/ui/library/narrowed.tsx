import type { PresetQuery } from "@/contracts/library";
import { chosenOf, readFilters, toggleFilter, writeFilters } from "@/core/search/written";
import { Chip } from "../kit/bits";
import { Button } from "../kit/button";
import { FACETS, wordOf } from "./facets";
import { type SetFilters, folderPath, useFolders } from "./use-library";

interface Props {
  readonly query: PresetQuery;
  readonly onSet: SetFilters;
}

/** What the list is narrowed to, each with a way to let go of it: the filter itself may be out of sight. */
export function Narrowed({ query, onSet }: Props) {
  const folders = useFolders().data?.folders ?? [];
  const folder = folders.find((f) => f.id === query.folder);
  const filters = readFilters(query.only ?? "");
  const chosen = FACETS.flatMap(([field, heading]) =>
    chosenOf(filters, field).map((value) => ({ field, heading, value })),
  );
  if (!folder && chosen.length === 0) return null;
  return (
    <div
      role="group"
      aria-label="Narrowed to"
      className="flex min-h-[34px] flex-none flex-wrap items-center gap-[6px] border-edge border-b px-[14px] py-1"
    >
      {folder && (
        <Chip label="the folder" onRemove={() => onSet({ folder: undefined })}>
          Folder: {folderPath(folder, folders)}
        </Chip>
      )}
      {chosen.map(({ field, heading, value }) => (
        <Chip
          key={`${field} ${value}`}
          label={`the filter ${heading}: ${wordOf(field, value)}`}
          onRemove={() =>
            onSet(({ only = "" }) => ({ only: writeFilters(toggleFilter(readFilters(only), field, value)) }))
          }
        >
          {heading}: {wordOf(field, value)}
        </Chip>
      ))}
      <Button small plain className="ml-auto" onClick={() => onSet({ folder: undefined, only: undefined })}>
        Let go of all
      </Button>
    </div>
  );
}
