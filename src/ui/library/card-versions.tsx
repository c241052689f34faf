"use client";

import { counted } from "@/core/names/count";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetDetail } from "@/contracts/library";
import type { PresetRow, Use } from "@/contracts/records";
import { quoteValue } from "@/core/search/written";
import { orSay } from "../kit/say";
import { Button } from "../kit/button";
import { formatMoment } from "../kit/dates";
import { NameField } from "../kit/name-field";
import { openSheet } from "./filing";

interface VersionsProps {
  readonly preset: PresetRow;
  readonly detail: PresetDetail | undefined;
  readonly shown: number;
  readonly onShow: (version: number | null) => void;
}

/** Every save, newest first: looked at, compared, called by a name. */
export function VersionList({ preset, detail, shown, onShow }: VersionsProps) {
  const queries = useQueryClient();
  if (!detail || detail.versions.length + detail.merged.length < 2) return null;
  const compare = (version: number) =>
    openSheet({ sheet: "compare", left: { preset, version }, right: { preset, version: preset.version } });
  const rename = async (version: number, name: string) => {
    await api.nameVersion(preset.id, version, name.trim() === "" ? null : name.trim());
    await queries.invalidateQueries({ queryKey: KEYS.preset(preset.id) });
  };
  return (
    <section>
      <h3 className="h2 pb-1">Versions</h3>
      <ul>
        {detail.versions.map(({ version, savedAt, name, basedOn }, at) => (
          <li
            key={version}
            className={`flex min-h-[26px] items-center gap-2 pr-1 ${version === shown ? "bg-live-tint" : ""}`}
          >
            <button
              type="button"
              aria-pressed={version === shown}
              onClick={() => onShow(at === 0 ? null : version)}
              className="flex h-[26px] min-w-0 flex-1 items-center gap-3 px-2 text-left hover:bg-sunk"
            >
              <span className="num">{version}</span>
              <span className="flex-none text-soft">{formatMoment(savedAt)}</span>
              <span className="truncate">
                {name ?? (at === 0 ? <span className="text-small text-soft">newest</span> : "")}
                {basedOn !== null && <span className="text-small text-edit"> made of {basedOn}</span>}
              </span>
            </button>
            {at > 0 && (
              <Button
                small
                plain
                aria-label={`Compare version ${version} with the newest`}
                onClick={() => compare(version)}
              >
                compare
              </Button>
            )}
          </li>
        ))}
      </ul>
      {detail.merged.length > 0 && (
        <p className="text-small text-soft">
          With the versions of {detail.merged.map((m) => `“${m.name}”`).join(", ")}, which were merged into it.
        </p>
      )}
      <NameField
        of={String(shown)}
        label={`Name of version ${shown}`}
        name={detail.versions.find((v) => v.version === shown)?.name ?? ""}
        placeholder={`Give version ${shown} a name`}
        onName={(name) => orSay(rename(shown, name))}
      />
    </section>
  );
}

/** Presets that have it inside. */
export function Holders({ detail }: { readonly detail: PresetDetail | undefined }) {
  const router = useRouter();
  if (!detail || detail.heldBy.length === 0) return null;
  return (
    <section>
      <h3 className="h2 pb-1">Inside of</h3>
      <ul>
        {detail.heldBy.map(({ id, name }) => (
          <li key={id}>
            <button
              type="button"
              className="min-h-6 truncate text-left text-small hover:text-live"
              onClick={() => router.push(`/library?q=${encodeURIComponent(`name:${quoteValue(name)}`)}`)}
            >
              {name}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function byProject(uses: readonly Use[]): ReadonlyMap<string, readonly Use[]> {
  const projects = new Map<string, Use[]>();
  for (const use of uses) projects.set(use.project, [...(projects.get(use.project) ?? []), use]);
  return projects;
}

function UseLine({ use: { project, strip, stripName, version, differs } }: { readonly use: Use }) {
  const router = useRouter();
  return (
    <li>
      <button
        type="button"
        className="flex min-h-6 w-full items-baseline gap-2 pl-3 text-left text-small hover:text-live"
        onClick={() => router.push(`/bench?project=${project}&strip=${strip}`)}
      >
        <span className="truncate">{stripName}</span>
        <span className={`ml-auto whitespace-nowrap ${differs > 0 ? "text-edit" : "text-soft"}`}>
          {differs > 0 ? `differs by ${differs}` : `version ${version}`}
        </span>
      </button>
    </li>
  );
}

/** Strips of projects that came from it, project by project; a project leads to all sounds that it uses. */
export function Uses({ detail }: { readonly detail: PresetDetail | undefined }) {
  const router = useRouter();
  const id = detail?.preset.id ?? "";
  const found = useQuery({
    queryKey: KEYS.uses(id),
    queryFn: () => api.listUses(id),
    enabled: detail !== undefined,
  }).data;
  if (!detail || !found) return null;
  const { uses } = found;
  const projects = new Set(uses.map((u) => u.project)).size;
  // An earlier version may be on show; which one is the newest stands first in the list.
  const newest = detail.versions[0]?.version ?? detail.preset.version;
  const old = uses.filter((use) => use.version < newest).length;
  return (
    <section>
      <h3 className="h2 pb-1">Used in</h3>
      {uses.length === 0 ? (
        <p className="text-small text-soft">No project yet</p>
      ) : (
        <p className="flex items-center gap-2 text-small">
          {counted(projects, "project")}, {counted(uses.length, "strip")}
          <Button small className="ml-auto" onClick={() => openSheet({ sheet: "uses", preset: detail.preset })}>
            {old > 0 ? `Bring version ${newest} to ${counted(old, "strip")}…` : "Look at each…"}
          </Button>
        </p>
      )}
      <ul>
        {[...byProject(uses)].map(([project, some]) => (
          <li key={project}>
            <button
              type="button"
              title={`All sounds that ${some[0]?.projectName ?? ""} uses`}
              className="min-h-6 max-w-full truncate text-left text-small text-soft hover:text-live"
              onClick={() =>
                router.push(`/library?q=${encodeURIComponent(`in:${quoteValue(some[0]?.projectName ?? "")}`)}`)
              }
            >
              {some[0]?.projectName}
            </button>
            <ul>
              {some.map((use) => (
                <UseLine key={use.strip} use={use} />
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </section>
  );
}
