"use client";

import { memo, useDeferredValue, useMemo, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { LONGEST_NAME, withoutClashes } from "@/core/names/free";
import { type Named, PATTERN_FIELDS, applyPattern, shortName, unknownFields } from "@/core/library/pattern";
import { insideOf } from "@/core/library/inside";
import { fold } from "@/core/names/words";
import { Button } from "../kit/button";
import { Field, INPUT } from "../kit/field";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { usePatterns } from "../names/patterns";
import { useTaken } from "../names/taken";
import { closeSheet, countSounds, useFiling } from "./filing";
import { rowsBy } from "./overtaken";

const namedOf = ({ kind, card, content }: PresetRow): Named => ({ kind, card, inside: insideOf(content) });

/** What a pattern makes of each, in so many letters, and the names that are free. */
function useNames(presets: readonly PresetRow[], pattern: string, most: number) {
  const wished = useMemo(
    () =>
      presets
        .map((preset, at) => applyPattern(pattern, namedOf(preset), at + 1))
        .map((name) => (most < LONGEST_NAME ? shortName(name, most) : name)),
    [presets, pattern, most],
  );
  const ids = useMemo(() => presets.map((p) => p.id), [presets]);
  const taken = useTaken(wished, ids).names;
  const names = useMemo(
    () => withoutClashes(wished, taken).map((name, at) => (wished[at] === "" ? "" : name)),
    [wished, taken],
  );
  return { wished, names };
}

/** One pattern for many names, with each name shown before it is given. */
export function RenameSheet({ presets: opened }: { readonly presets: readonly PresetRow[] }) {
  const [presets, setPresets] = useState(opened);
  const { change } = useFiling();
  const kind = presets[0]?.kind ?? "chain";
  const { patterns, keep } = usePatterns(kind);
  const [typed, setPattern] = useState<string | null>(null);
  const pattern = typed ?? patterns[0] ?? "{name}";
  // Thousands of names follow behind the hand that types.
  const read = useDeferredValue(pattern);
  const [most, setMost] = useState(LONGEST_NAME);
  const { refusal, busy, attempt } = useAttempt();
  const { wished, names } = useNames(presets, read, most);
  const unknown = unknownFields(pattern);
  const changed = presets.filter((preset, at) => names[at] !== "" && names[at] !== preset.card.name);
  const rename = () =>
    attempt(
      async () => {
        await keep(pattern);
        const given = new Map(presets.map(({ id }, at) => [id, names[at]]));
        await change(changed, (p) => ({ name: given.get(p.id) ?? p.card.name }), "Rename");
        closeSheet();
      },
      (error) => setPresets((now) => rowsBy(error, now)),
    );
  return (
    <Sheet open onClose={closeSheet} title={`Rename ${countSounds(presets)}`} className="w-[820px]">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void rename();
        }}
        className="grid gap-[14px]"
      >
        <div className="grid grid-cols-[72px_1fr_90px_150px] gap-x-3 gap-y-2">
          <Field label="Pattern">
            <input
              autoFocus
              autoComplete="off"
              maxLength={300}
              list="kept-patterns"
              value={pattern}
              onChange={(event) => setPattern(event.target.value)}
              className={`${INPUT} num`}
            />
          </Field>
          <datalist id="kept-patterns">
            {patterns.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
          <Field label="Letters">
            <select className={INPUT} value={most} onChange={(event) => setMost(Number(event.target.value))}>
              <option value={LONGEST_NAME}>all of them</option>
              {[8, 12, 16, 24].map((n) => (
                <option key={n} value={n}>
                  {n}, for a device
                </option>
              ))}
            </select>
          </Field>
        </div>
        <p className="flex flex-wrap gap-1">
          {Object.entries(PATTERN_FIELDS).map(([field, meaning]) => (
            <button
              key={field}
              type="button"
              title={meaning}
              onClick={() => setPattern(`${pattern}${pattern === "" ? "" : " "}{${field}}`)}
              className="num-small rounded-card border border-edge px-[6px] leading-[20px] text-soft hover:border-ink hover:text-ink"
            >
              {`{${field}}`}
            </button>
          ))}
        </p>
        {unknown.length > 0 && (
          <p role="status" className="border-edit border-l-[3px] bg-edit-tint px-3 py-2">
            {unknown.map((name) => `{${name}}`).join(", ")} is no field; it stays as it stands.
          </p>
        )}
        <BeforeAndAfter presets={presets} wished={wished} names={names} />
        {refusal}
        <div className="flex justify-end gap-2">
          <Button onClick={closeSheet}>Cancel</Button>
          <Button main type="submit" disabled={changed.length === 0 || read !== pattern || busy}>
            {busy ? "Renaming…" : `Rename ${changed.length} of ${presets.length}`}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

interface TableProps {
  readonly presets: readonly PresetRow[];
  readonly wished: readonly string[];
  readonly names: readonly string[];
}

/** Each name as it is and as it will be. */
const BeforeAndAfter = memo(function BeforeAndAfter({ presets, wished, names }: TableProps) {
  return (
    <Scroll label="Names" className="max-h-[320px] border-edge border-t">
      <table aria-label="Names before and after" className="block">
        <tbody className="block">
          {presets.map((preset, at) => (
            <tr
              key={preset.id}
              className="grid min-h-[30px] grid-cols-[1fr_20px_1fr] items-center border-rule border-b"
            >
              <td className="truncate text-soft">{preset.card.name}</td>
              <td aria-hidden="true" className="text-soft">
                →
              </td>
              <td className="min-w-0">
                <NewName
                  now={names[at] ?? ""}
                  before={preset.card.name}
                  clashed={fold(names[at] ?? "") !== fold(wished[at] ?? "")}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
});

function NewName({
  now,
  before,
  clashed,
}: {
  readonly now: string;
  readonly before: string;
  readonly clashed: boolean;
}) {
  if (now === "") return <span className="text-soft">keeps its name: the pattern gives none</span>;
  return (
    <span className="flex items-baseline gap-2">
      <span className={`name truncate ${now === before ? "text-soft" : ""}`}>{now}</span>
      {clashed && <span className="flex-none text-small text-edit">that name is taken</span>}
    </span>
  );
}
