"use client";

import type { PresetQuery } from "@/contracts/endpoints";
import type { Folder } from "@/contracts/records";
import { KIND_NAMES, PRESET_KINDS } from "@/core/presets/preset";
import { cx } from "../kit/class-names";
import { type Filter, useFolders } from "./use-library";

interface Props {
  readonly query: PresetQuery;
  readonly total: number | undefined;
  readonly facets: { readonly kinds: Record<string, number>; readonly tags: Record<string, number> } | undefined;
  readonly onSet: (changes: Partial<Record<Filter, string | undefined>>) => void;
}

interface LineProps {
  readonly label: string;
  readonly count?: number | undefined;
  readonly on: boolean;
  readonly depth?: number;
  readonly onClick: () => void;
}

function Line({ label, count, on, depth = 0, onClick }: LineProps) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={on}
        onClick={onClick}
        style={{ paddingLeft: 14 + depth * 10 }}
        className={cx(
          "flex h-[26px] w-full items-center justify-between gap-2 pr-[14px] text-left hover:bg-sunk",
          on && "row-chosen",
        )}
      >
        <span className="truncate">{label}</span>
        {count !== undefined && <span className="num-small text-soft">{count}</span>}
      </button>
    </li>
  );
}

const depthOf = (folder: Folder, folders: readonly Folder[]): number => {
  const parent = folders.find((f) => f.id === folder.parent);
  return parent ? 1 + depthOf(parent, folders) : 0;
};

/** Folders, kinds and tags, each with how many there are. */
export function Filters({ query, total, facets, onSet }: Props) {
  const folders = useFolders().data?.folders ?? [];
  const kinds = PRESET_KINDS.filter((k) => (facets?.kinds[k] ?? 0) > 0 || query.kind === k);
  const tags = Object.entries(facets?.tags ?? {});
  const everything = !query.folder && !query.kind && !query.tag;
  return (
    <nav aria-label="Folders and filters" className="h-full overflow-auto py-3">
      <h2 className="h2 px-[14px] pt-[10px] pb-1">Folders</h2>
      <ul>
        <Line
          label="All sounds"
          count={everything ? total : undefined}
          on={everything}
          onClick={() => onSet({ folder: undefined, kind: undefined, tag: undefined })}
        />
        {folders.map((folder) => (
          <Line
            key={folder.id}
            label={folder.name}
            count={folder.count}
            depth={depthOf(folder, folders)}
            on={query.folder === folder.id}
            onClick={() => onSet({ folder: query.folder === folder.id ? undefined : folder.id })}
          />
        ))}
      </ul>
      {kinds.length > 0 && <h2 className="h2 px-[14px] pt-[10px] pb-1">Kind</h2>}
      <ul>
        {kinds.map((kind) => (
          <Line
            key={kind}
            label={KIND_NAMES[kind]}
            count={facets?.kinds[kind] ?? 0}
            on={query.kind === kind}
            onClick={() => onSet({ kind: query.kind === kind ? undefined : kind })}
          />
        ))}
      </ul>
      {tags.length > 0 && <h2 className="h2 px-[14px] pt-[10px] pb-1">Tagged</h2>}
      <ul>
        {tags.map(([tag, count]) => (
          <Line
            key={tag}
            label={tag}
            count={count}
            on={query.tag === tag}
            onClick={() => onSet({ tag: query.tag === tag ? undefined : tag })}
          />
        ))}
      </ul>
    </nav>
  );
}
