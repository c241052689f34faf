"use client";

import { useState } from "react";
import { counted } from "@/core/names/count";
import { Field, INPUT } from "../kit/field";
import { Segments } from "../kit/segments";
import { splitTags } from "../kit/split-tags";
import { Button } from "../kit/button";
import { folderPath, useFolders } from "../library/use-library";
import { KnownField } from "../names/known-field";
import { type Row, isKept } from "./rows";
import type { Findings } from "./use-findings";

interface Props {
  readonly rows: readonly Row[];
  readonly findings: Findings;
}

/** What stands in a field of which they say different things. */
const SEVERAL = "several";

/** What all of them say; null where they do not say the same. */
function shared<T>(rows: readonly Row[], read: (row: Row) => T): T | null {
  const [first, ...others] = rows.map(read);
  return first !== undefined && others.every((other) => other === first) ? first : null;
}

/** Tags that all of them have. */
const sharedTags = (rows: readonly Row[]): readonly string[] =>
  (rows[0]?.card.tags ?? []).filter((tag) => rows.every(({ card }) => card.tags.includes(tag)));

/** What is in hand, several at once: what is set of them is set of each; of tags, those that all have are shown. */
export function SeveralPane({ rows: all, findings }: Props) {
  const free = all.filter((row) => !isKept(row));
  const rows = free.map(findings.editOf);
  const ticked = free.filter(findings.isOn).length;
  const versions = free.filter(({ standing }) => standing.is === "changed");
  const set = (change: Parameters<Findings["edit"]>[1]) => findings.edit(free, (row) => ({ on: true, ...change(row) }));
  return (
    <section
      aria-label={`In hand: ${all.length}`}
      className="grid content-start gap-3 overflow-auto px-[18px] py-[16px]"
    >
      <p className="text-small text-soft">
        {all.length} in hand, {ticked} ticked
      </p>
      {free.length === 0 ? (
        <p>The library has all of them.</p>
      ) : (
        <>
          <div className="flex gap-2">
            <Button small disabled={ticked === free.length} onClick={() => findings.edit(free, () => ({ on: true }))}>
              Tick {counted(free.length, "find")}
            </Button>
            <Button small disabled={ticked === 0} onClick={() => findings.edit(free, () => ({ on: false }))}>
              Tick none
            </Button>
          </div>
          <h2 className="h2">How they are filed</h2>
          <div className="grid grid-cols-[72px_1fr] items-center gap-x-3 gap-y-2">
            {versions.length > 0 && <AsVersions rows={versions} findings={findings} />}
            <Filing key={free.map(({ key }) => key).join(" ")} rows={rows} set={set} />
          </div>
        </>
      )}
    </section>
  );
}

function AsVersions({ rows, findings }: Props) {
  const filed = findings.filed.filter(({ row }) => rows.some(({ key }) => key === row.key));
  const asVersions = filed.filter(({ asVersion }) => asVersion).length;
  const value = asVersions === filed.length ? "version" : asVersions === 0 ? "own" : "";
  return (
    <Field label="As">
      <Segments
        label="As"
        value={value}
        onChange={(as) => findings.edit(rows, () => ({ on: true, asVersion: as === "version" }))}
        options={[
          { value: "version", label: rows.length === 1 ? "version" : "versions" },
          { value: "own", label: "sounds of their own" },
        ]}
      />
    </Field>
  );
}

interface FilingProps {
  readonly rows: readonly Row[];
  readonly set: (change: Parameters<Findings["edit"]>[1]) => void;
}

function Filing({ rows, set }: FilingProps) {
  const folders = useFolders().data?.folders ?? [];
  const [tags, setTags] = useState(() => sharedTags(rows).join(", "));
  const folder = shared(rows, ({ card }) => card.folder ?? "");
  const purpose = shared(rows, ({ card }) => card.purpose);
  const retag = (typed: string) => {
    const [was, is] = [splitTags(tags), splitTags(typed)];
    setTags(typed);
    set(({ card }) => ({
      tags: [
        ...card.tags.filter((tag) => is.includes(tag) || !was.includes(tag)),
        ...is.filter((tag) => !card.tags.includes(tag)),
      ],
    }));
  };
  return (
    <>
      <Field label="Folder">
        <select
          className={INPUT}
          value={folder ?? SEVERAL}
          onChange={({ target }) => set(() => ({ folder: target.value === "" ? null : target.value }))}
        >
          {folder === null && (
            <option value={SEVERAL} disabled>
              {SEVERAL}
            </option>
          )}
          <option value="">No folder</option>
          {folders.map((one) => (
            <option key={one.id} value={one.id}>
              {folderPath(one, folders)}
            </option>
          ))}
        </select>
      </Field>
      <span className="text-soft">Tags</span>
      <KnownField label="Tags" of="tag" value={tags} placeholder="of all of them" onValue={retag} />
      <Field label="For">
        <input
          maxLength={200}
          autoComplete="off"
          value={purpose ?? ""}
          placeholder={purpose === null ? SEVERAL : ""}
          className={INPUT}
          onChange={({ target }) => set(() => ({ purpose: target.value }))}
        />
      </Field>
    </>
  );
}
