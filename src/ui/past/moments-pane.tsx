"use client";

import { type KeyboardEvent, type ReactNode, useDeferredValue, useEffect, useRef, useState } from "react";
import { MOST_NARROWING } from "@/core/documents/limits";
import { counted } from "@/core/names/count";
import { Empty, Loading } from "../kit/bits";
import { cx } from "../kit/class-names";
import { formatTime } from "../kit/dates";
import { INPUT } from "../kit/field";
import { Toggle } from "../kit/toggle";
import { dayWords, daysOf, windowWords } from "../projects/done-when";
import { type Change, useMoments } from "./use-moments";

interface Props {
  readonly id: string;
  /** Of the project as it is. */
  readonly revision: number;
  /** The moment that is looked at, by the change that it comes after; 0 is the beginning. */
  readonly at: number;
  /** The moment that it is compared with; null for now. */
  readonly beside: number | null;
  /** The strip in hand, by which the list can be narrowed. */
  readonly strip: { readonly id: string; readonly name: string } | null;
  readonly onAt: (n: number) => void;
  /** Whether only what concerned the strip in hand is listed. */
  readonly ofStrip: boolean;
  readonly onOfStrip: (of: boolean) => void;
  /** What the mixes are called that are kept of some moments. */
  readonly titles: ReadonlyMap<number, string>;
  /** Below the list. */
  readonly children?: ReactNode;
}

const momentId = (n: number): string => `moment-${n}`;

/** Whether what was done is done today. */
const isStanding = ({ standing, of }: Change): boolean =>
  of === null && (standing === "done" || standing === "doneForGood");

/** Every moment of a project, by the change that led to it: found by words and by when, walked by arrows. */
export function MomentsPane({ id, revision, at, beside, strip, onAt, ofStrip, onOfStrip, titles, children }: Props) {
  const [typed, setTyped] = useState("");
  const q = useDeferredValue(typed.trim());
  const narrowed = ofStrip ? (strip?.id ?? null) : null;
  const { changes, isPending, error, hasNextPage, isFetchingNextPage, fetchNextPage } = useMoments({
    id,
    revision,
    q,
    strip: narrowed,
  });
  const isWhole = q === "" && narrowed === null;
  const numbers = [...changes.map(({ n }) => n), ...(isWhole && !hasNextPage ? [0] : [])];
  const place = numbers.indexOf(at);
  useEffect(() => {
    // In some browsers it is a promise of having come there.
    void document.getElementById(momentId(at))?.scrollIntoView({ block: "nearest" });
  }, [at]);
  const more = () => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  };
  const walk = (to: number) => {
    const next = numbers[Math.min(numbers.length - 1, Math.max(0, to))];
    if (next !== undefined) onAt(next);
    if (to >= numbers.length - 3) more();
  };
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => list.current?.focus(), []);
  const onFieldKey = (event: KeyboardEvent) => {
    if (event.key !== "Escape" && event.key !== "ArrowDown" && event.key !== "Enter") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") setTyped("");
    list.current?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = {
      ArrowDown: place + 1,
      ArrowUp: place - 1,
      Home: 0,
      End: numbers.length - 1,
      PageDown: place + 10,
      PageUp: place - 10,
    }[event.key];
    if (to === undefined || event.ctrlKey || event.altKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    event.stopPropagation();
    walk(to);
  };
  return (
    <section aria-label="Moments" className="flex h-full min-h-0 flex-col">
      <div className="grid flex-none gap-2 p-[14px] pb-3">
        <input
          aria-label="Find in the past"
          placeholder="level of Cello since yesterday"
          value={typed}
          maxLength={MOST_NARROWING}
          onChange={({ target }) => setTyped(target.value)}
          onKeyDown={onFieldKey}
          className={INPUT}
        />
        <Toggle
          label={strip ? `Only of ${strip.name}` : "Only of the strip in hand"}
          on={ofStrip && strip !== null}
          disabled={strip === null}
          onChange={onOfStrip}
        />
      </div>
      <div
        role="listbox"
        tabIndex={0}
        aria-label="What was done"
        aria-activedescendant={place >= 0 ? momentId(at) : undefined}
        ref={list}
        onKeyDown={onKeyDown}
        onScroll={({ currentTarget: list }) => {
          if (list.scrollHeight - list.scrollTop - list.clientHeight < 400) more();
        }}
        className="group min-h-0 flex-1 overflow-auto border-edge border-t outline-none"
      >
        {isPending && <Loading what="Looking back" />}
        {error && (
          <p role="alert" className="p-[14px]">
            {error.message}
          </p>
        )}
        {!isPending && changes.length === 0 && !isWhole && (
          <Empty title="Nothing was done that says this" className="px-[14px] py-6">
            <p>
              Words of what was done, names of strips and parts, “since yesterday”, “on 2026-11-24”, “before 14:30”.
            </p>
          </Empty>
        )}
        {daysOf(changes).map(({ day, entries }) => (
          <div key={entries[0]?.n} role="group" aria-label={dayWords(day)}>
            <p aria-hidden="true" className="h2 sticky top-0 z-[1] bg-ground px-[14px] pt-3 pb-1">
              {dayWords(day)}
            </p>
            {entries.map((change) => (
              <Moment
                key={change.n}
                change={change}
                isAt={change.n === at}
                isBeside={change.n === beside}
                isNow={change.n === revision}
                title={titles.get(change.n) ?? null}
                onAt={onAt}
              />
            ))}
          </div>
        ))}
        {isWhole && !hasNextPage && !isPending && (
          <div
            role="option"
            id={momentId(0)}
            tabIndex={-1}
            aria-selected={at === 0}
            onClick={() => onAt(0)}
            className={rowClass(at === 0)}
          >
            <span className="w-[38px] flex-none" />
            <span className="grid min-w-0 flex-1">
              Its beginning
              <Kept title={titles.get(0) ?? null} />
            </span>
            {beside === 0 && <Held />}
          </div>
        )}
      </div>
      {children}
    </section>
  );
}

const Kept = ({ title }: { readonly title: string | null }) =>
  title !== null && (
    <span
      title={`Kept as “${title}”`}
      className="my-[2px] max-w-full justify-self-start truncate rounded-card bg-live-tint px-1 text-live text-small"
    >
      {title}
    </span>
  );

const rowClass = (isAt: boolean): string =>
  cx(
    "flex min-h-[36px] cursor-default items-center gap-2 border-rule border-b px-[14px] py-[5px]",
    // Of thousands only those in sight are drawn.
    "[contain-intrinsic-height:36px] [content-visibility:auto]",
    isAt
      ? "row-chosen outline outline-edge -outline-offset-1 group-focus-visible:outline-2 group-focus-visible:outline-live"
      : "hover:bg-sunk/60",
  );

const Held = () => <span className="flex-none text-edit text-small">beside</span>;

interface MomentProps {
  readonly change: Change;
  readonly isAt: boolean;
  readonly isBeside: boolean;
  readonly isNow: boolean;
  /** What the mix is called that is kept of it. */
  readonly title: string | null;
  readonly onAt: (n: number) => void;
}

/** What a change did, by its first step, as far as its words do not say it: "Cello: level −4.5 → −11.0 dB". */
function detailOf({ label, count, strips, sentences, steps }: Change): string {
  const [first] = sentences;
  if (steps === 1 && first !== undefined) return first.replace(/\.$/, "");
  const names = strips.map(({ name }) => name).filter((name) => !label.includes(name));
  const more = names.length > 0 ? count - strips.length : 0;
  return [...names, ...(more > 0 ? [counted(more, "more", "more")] : [])].join(", ");
}

function Moment({ change, isAt, isBeside, isNow, title, onAt }: MomentProps) {
  const stands = isStanding(change) || change.of !== null;
  const state = isNow ? "now" : change.of === null && !stands ? "taken back" : "";
  const where = [detailOf(change), change.window === null ? "" : windowWords(change.window)].filter(
    (words) => words !== "" && words !== "this window",
  );
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list itself takes the keys
    <div
      role="option"
      id={momentId(change.n)}
      tabIndex={-1}
      aria-selected={isAt}
      onClick={() => onAt(change.n)}
      className={rowClass(isAt)}
    >
      <span className="num-small w-[38px] flex-none self-start pt-[2px] text-soft">{formatTime(change.at)}</span>
      <span className="grid min-w-0 flex-1">
        <span className={cx("truncate", !stands && "text-soft line-through decoration-edge")} title={change.label}>
          {change.label}
        </span>
        {where.length > 0 && (
          <span className="truncate text-small text-soft" title={change.sentences.join("\n")}>
            {where.join(" · ")}
          </span>
        )}
        <Kept title={title} />
      </span>
      {isBeside && <Held />}
      {state !== "" && <span className="flex-none text-small text-soft">{state}</span>}
    </div>
  );
}
