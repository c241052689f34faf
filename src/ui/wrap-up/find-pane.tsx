"use client";

import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { processorsOf } from "@/core/chains/tree";
import { chainOf } from "@/core/presets/preset";
import type { Project } from "@/core/projects/project";
import { Field, INPUT } from "../kit/field";
import { Segments } from "../kit/segments";
import { Shapes } from "../kit/shape";
import { splitTags } from "../kit/split-tags";
import { folderPath, useFolders } from "../library/use-library";
import { hearPreset } from "../listening/hear-preset";
import { hear, offerB } from "../listening/listening";
import { KnownField } from "../names/known-field";
import { TakenNote } from "../names/name-taken";
import { type Row, alsoWords, isKept, levelWords, standingWords, workWords } from "./rows";
import { CompanionTicks } from "./companion-ticks";
import type { Edit, Findings } from "./use-findings";

interface Props {
  readonly row: Row;
  readonly findings: Findings;
  /** That it is in; null where it is one of several. */
  readonly project: Project | null;
}

/** What is in hand is A; the nearest that the library has is offered as B. */
function useHearing({ content, name, tempo }: Row, nearest: Awaited<ReturnType<typeof api.getPreset>> | undefined) {
  useEffect(() => hearPreset(hear, content, { name, tempo }), [content, name, tempo]);
  useEffect(() => {
    if (!nearest) return offerB(null);
    const { preset } = nearest;
    return hearPreset(offerB, preset.content, { name: preset.card.name, tempo });
  }, [nearest, tempo]);
  useEffect(() => () => offerB(null), []);
}

/** What is in hand is heard, and the nearest that the library has beside it; gives that, once it is known. */
function useHeardBeside(row: Row) {
  const { nearest } = row;
  const { data } = useQuery({
    queryKey: KEYS.version(nearest?.preset ?? "", nearest?.version ?? 0),
    queryFn: () => api.getPreset(nearest!.preset, nearest!.version),
    enabled: nearest !== null,
  });
  const found = nearest ? data : undefined;
  useHearing(row, found);
  return found;
}

/** What is in hand is heard, and nothing is shown. */
export function HeardBeside({ row }: Pick<Props, "row">): null {
  useHeardBeside(row);
  return null;
}

function Nearest({ row }: Pick<Props, "row">) {
  const { nearest, tempo } = row;
  const found = useHeardBeside(row);
  // Sends have no sound of their own.
  if (row.level === "sends") return null;
  if (!nearest) return <p className="text-soft">Nothing of the library is set alike.</p>;
  return (
    <div className="grid gap-1">
      <h2 className="h2">Nearest in the library</h2>
      <p>
        <span className="name">{nearest.name}</span>{" "}
        <span className="text-soft">
          {nearest.distance === 0 ? "set the same" : `${Math.max(1, Math.round(100 * nearest.distance))} % away`}, heard
          as B
        </span>
      </p>
      {found && <Shapes processors={processorsOf(chainOf(found.preset.content))} tempo={tempo} />}
    </div>
  );
}

interface FormProps extends Omit<Props, "row"> {
  readonly found: Row;
}

/** How a find would be filed; who sets anything of it wants it filed. */
function FilingForm({ found, findings, project }: FormProps) {
  const folders = useFolders().data?.folders ?? [];
  const { standing, card } = findings.editOf(found);
  const filed = findings.filed.find((one) => one.row.key === found.key);
  const set = (change: Edit) => findings.edit([found], () => ({ on: true, ...change }));
  return (
    <>
      <h2 className="h2">How it is filed</h2>
      <div className="grid grid-cols-[72px_1fr] items-center gap-x-3 gap-y-2">
        {standing.is === "changed" && (
          <Field label="As">
            <Segments
              label="As"
              value={filed && !filed.asVersion ? "own" : "version"}
              onChange={(as) => set({ asVersion: as === "version" })}
              options={[
                { value: "version", label: `version ${standing.newest + 1}` },
                { value: "own", label: "a sound of its own" },
              ]}
            />
          </Field>
        )}
        {filed?.asVersion ? (
          <>
            <span className="text-soft">Name</span>
            <span className="name">{filed.name}</span>
          </>
        ) : (
          <>
            <Field label="Name">
              <span>
                <input
                  aria-label="Name"
                  maxLength={200}
                  autoComplete="off"
                  value={filed?.typed ?? ""}
                  placeholder={filed ? "" : "tick it to file it"}
                  className={`${INPUT} name`}
                  onChange={({ target }) => set({ name: target.value })}
                />
                {filed && filed.name !== filed.wished && (
                  <>
                    <TakenNote /> <span className="text-small">It is filed as “{filed.name}”.</span>
                  </>
                )}
              </span>
            </Field>
            <Field label="Folder">
              <select
                className={INPUT}
                value={card.folder ?? ""}
                onChange={({ target }) => set({ folder: target.value === "" ? null : target.value })}
              >
                <option value="">No folder</option>
                {folders.map((folder) => (
                  <option key={folder.id} value={folder.id}>
                    {folderPath(folder, folders)}
                  </option>
                ))}
              </select>
            </Field>
            <span className="text-soft">Tags</span>
            <KnownField
              label="Tags"
              of="tag"
              value={card.tags.join(", ")}
              onValue={(value) => set({ tags: splitTags(value) })}
            />
            <Field label="For">
              <input
                maxLength={200}
                autoComplete="off"
                value={card.purpose}
                className={INPUT}
                onChange={({ target }) => set({ purpose: target.value })}
              />
            </Field>
          </>
        )}
      </div>
      {project && found.level === "strip" && <CompanionTicks {...{ project, found, findings }} />}
    </>
  );
}

/** Where it is from, as its card will say: "Copper Heron · Salt Lanterns · strip Voice". */
function originWords({ card: { origin } }: Row): string {
  const { artist, song, strip, performer, instrument } = origin;
  return [artist, song, strip && `strip ${strip}`, performer, instrument]
    .filter((word) => word !== undefined && word !== "")
    .join(" · ");
}

/** What is in hand: how it would be filed, and the nearest that the library has. */
export function FindPane({ row: found, findings, project }: Props) {
  const row = findings.editOf(found);
  return (
    <section
      aria-label={`In hand: ${levelWords(row)} of ${row.strip.look.name}`}
      className="grid content-start gap-3 overflow-auto px-[18px] py-[16px]"
    >
      <p className="text-small text-soft">
        {levelWords(row)} · {row.strip.look.name}
      </p>
      <Shapes processors={row.processors} tempo={row.tempo} most={6} />
      <p>
        {standingWords(row)}
        {workWords(row) !== "" && <span className="text-soft"> · {workWords(row)}</span>}
      </p>
      {!isKept(row) && originWords(row) !== "" && <p className="text-soft">{originWords(row)}</p>}
      {row.alsoAt.length > 0 && (
        <p className="text-soft" title={row.alsoAt.join("\n")}>
          {alsoWords(row)}, which go by it, too
        </p>
      )}
      {!isKept(row) && <FilingForm {...{ found, findings, project }} />}
      <Nearest key={row.key} row={row} />
    </section>
  );
}
