"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useDeferredValue, useMemo, useRef, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { withoutClashes } from "@/core/names/free";
import { type Named, namer, unknownFields } from "@/core/library/pattern";
import { knownInside } from "@/core/library/inside";
import { verbFor } from "@/core/library/verbs";
import { shortNames } from "@/core/names/short";
import { formatCount } from "@/core/names/count";
import { fold } from "@/core/names/words";
import { Button } from "../kit/button";
import { Field, INPUT } from "../kit/field";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { PatternHelp, usePatternHelp } from "../names/pattern-help";
import { usePatterns } from "../names/patterns";
import { useTaken } from "../names/taken";
import { closeSheet, countSounds, useFiling } from "./filing";
import { rowsBy } from "./overtaken";

/** What one is named by; what was measured of it is known already. */
const namedOf = ({ kind, card, content, measured }: PresetRow): Named => ({
  kind,
  card,
  inside: { ...knownInside(content), found: measured },
});

const NOBODY: readonly string[] = [];

/** So many letters devices show. */
const SHORT_LETTERS = [6, 8, 12, 16, 24] as const;

/** What a pattern makes of each, and what of it is free; in a few letters it is a second name, told apart from those beside it only. */
function useNames(presets: readonly PresetRow[], pattern: string, letters: number | null) {
  const all = useMemo(() => presets.map(namedOf), [presets]);
  const full = useMemo(() => {
    const nameOf = namer(pattern);
    return all.map((one, at) => nameOf(one, at + 1));
  }, [all, pattern]);
  const shorts = useMemo(() => (letters === null ? null : shortNames(full, letters)), [full, letters]);
  const ids = useMemo(() => presets.map((p) => p.id), [presets]);
  const taken = useTaken(shorts ? NOBODY : full, ids).names;
  const free = useMemo(
    () => withoutClashes(full, taken).map((name, at) => (full[at] === "" ? "" : name)),
    [full, taken],
  );
  return { first: all[0] ?? null, wished: shorts ?? full, names: shorts ?? free };
}

/** Which of its names is given. */
type NameField = "name" | "short";
const nowOf = ({ card }: PresetRow, field: NameField): string => card[field] ?? "";

/** One pattern for many names, with each name shown before it is given. */
export function RenameSheet({ presets: opened }: { readonly presets: readonly PresetRow[] }) {
  const [presets, setPresets] = useState(opened);
  const { change } = useFiling();
  const kind = presets[0]?.kind ?? "chain";
  const { patterns, keep } = usePatterns(kind);
  const [typed, setPattern] = useState<string | null>(null);
  const [letters, setLetters] = useState<number | null>(null);
  const field: NameField = letters === null ? "name" : "short";
  const pattern = typed ?? (letters === null ? patterns[0] : null) ?? "{name}";
  // Thousands of names follow behind the hand that types.
  const read = useDeferredValue(pattern);
  const input = useRef<HTMLInputElement>(null);
  const { help, at, take, add, handlers } = usePatternHelp({ field: input, pattern, onPattern: setPattern });
  const { refusal, busy, attempt } = useAttempt();
  const { first, wished, names } = useNames(presets, read, letters);
  const unknown = unknownFields(pattern);
  const changed = presets.filter(
    (preset, n) => preset.pack === null && names[n] !== "" && names[n] !== nowOf(preset, field),
  );
  const rename = () =>
    attempt(
      async () => {
        await keep(pattern);
        const given = new Map(presets.map(({ id }, n) => [id, names[n]]));
        await change(changed, (p) => ({ [field]: given.get(p.id) ?? nowOf(p, field) }), verbFor([field]));
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
        <div className="grid grid-cols-[72px_1fr_54px_190px] gap-x-3 gap-y-2">
          <Field label="Pattern">
            <input
              ref={input}
              autoFocus
              autoComplete="off"
              maxLength={300}
              list={help ? undefined : "kept-patterns"}
              value={pattern}
              onChange={(event) => setPattern(event.target.value)}
              className={`${INPUT} num`}
              {...handlers}
            />
          </Field>
          <datalist id="kept-patterns">
            {patterns.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
          <Field label="Gives">
            <select
              className={INPUT}
              value={letters ?? ""}
              onChange={({ target }) => setLetters(target.value === "" ? null : Number(target.value))}
            >
              <option value="">the name</option>
              {SHORT_LETTERS.map((n) => (
                <option key={n} value={n}>
                  a short name, {n} letters
                </option>
              ))}
            </select>
          </Field>
        </div>
        <PatternHelp help={help} at={at} named={first} onTake={take} onAdd={add} />
        {unknown.length > 0 && !help && (
          <p role="status" className="border-edit border-l-[3px] bg-edit-tint px-3 py-2">
            {unknown.join(", ")} is not understood; it stays as it stands.
          </p>
        )}
        <BeforeAndAfter presets={presets} field={field} wished={wished} names={names} />
        {refusal}
        <div className="flex justify-end gap-2">
          <Button onClick={closeSheet}>Cancel</Button>
          <Button main type="submit" disabled={changed.length === 0 || read !== pattern || help !== null || busy}>
            {busy
              ? "Renaming…"
              : `${verbFor([field])} ${formatCount(changed.length)} of ${formatCount(presets.length)}`}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

interface TableProps {
  readonly presets: readonly PresetRow[];
  readonly field: NameField;
  readonly wished: readonly string[];
  readonly names: readonly string[];
}

/** Height of a line of names. */
const LINE = 30;

/** Each name as it is and as it will be; only those in sight are drawn. */
const BeforeAndAfter = memo(function BeforeAndAfter({ presets, field, wished, names }: TableProps) {
  const scroller = useRef<HTMLElement>(null);
  // The compiler cannot see into the virtualizer; it holds its own state.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: presets.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => LINE,
    overscan: 10,
  });
  return (
    <Scroll label="Names" of={scroller} className="max-h-[320px] border-edge border-t">
      <table
        aria-label="Names before and after"
        aria-rowcount={presets.length}
        className="relative block"
        style={{ height: virtual.getTotalSize() }}
      >
        <tbody className="block">
          {virtual.getVirtualItems().map(({ index, start }) => (
            <tr
              key={presets[index]!.id}
              aria-rowindex={index + 1}
              style={{ height: LINE, transform: `translateY(${start}px)` }}
              className="absolute inset-x-0 top-0 grid grid-cols-[1fr_20px_1fr] items-center border-rule border-b"
            >
              <td className="truncate text-soft">
                {presets[index]!.card.name}
                {field === "short" && presets[index]!.card.short && ` · ${presets[index]!.card.short}`}
              </td>
              <td aria-hidden="true" className="text-soft">
                →
              </td>
              <td className="min-w-0">
                <NewName
                  fixed={presets[index]!.pack !== null}
                  now={names[index] ?? ""}
                  before={nowOf(presets[index]!, field)}
                  clashed={fold(names[index] ?? "") !== fold(wished[index] ?? "")}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
});

interface NewNameProps {
  /** It comes with a pack. */
  readonly fixed: boolean;
  readonly now: string;
  readonly before: string;
  readonly clashed: boolean;
}

function NewName({ fixed, now, before, clashed }: NewNameProps) {
  if (fixed) return <span className="text-soft">comes with a pack and keeps its name</span>;
  if (now === "") return <span className="text-soft">keeps its name: the pattern gives none</span>;
  return (
    <span className="flex items-baseline gap-2">
      <span className={`name truncate ${now === before ? "text-soft" : ""}`}>{now}</span>
      {clashed && <span className="flex-none text-small text-edit">that name is taken</span>}
    </span>
  );
}
