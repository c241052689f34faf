"use client";

import { useEffect, useRef } from "react";
import { processorsOf } from "@/core/chains/tree";
import { cx } from "../kit/class-names";
import { StripMark } from "../kit/card-mark";
import { Shapes } from "../kit/shape";
import { type Choosing, type StripList as List, keyOf } from "./use-strip-list";

interface Props {
  readonly list: List;
  readonly onOpen: () => void;
  /** All are of one project, whose name needs no line. */
  readonly isOfOne: boolean;
}

const howOf = (event: {
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
}): Choosing => (event.shiftKey ? "upTo" : event.ctrlKey || event.metaKey ? "also" : "only");

const optionId = (key: string): string => `strip-of-${key.replaceAll(" ", "-")}`;

/** Strips of projects, one a line, with their shapes. The list has the focus; the chosen line is told to screen readers. */
export function StripList({ list: { rows, at, here, chosen, choose }, onOpen, isOfOne }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const key = here && keyOf(here);
  useEffect(() => {
    if (key !== null) document.getElementById(optionId(key))?.scrollIntoView({ block: "nearest" });
  }, [key]);
  return (
    <div
      ref={box}
      role="listbox"
      tabIndex={0}
      aria-label="Strips"
      aria-multiselectable
      aria-activedescendant={key === null ? undefined : optionId(key)}
      className="group relative min-h-0 flex-1 overflow-auto outline-none"
    >
      {rows.map((row, n) => {
        const { strip, projectName, song, tempo } = row;
        const on = chosen.includes(row);
        return (
          <div
            key={keyOf(row)}
            id={optionId(keyOf(row))}
            role="option"
            aria-selected={on}
            onClick={(event) => choose(n, howOf(event))}
            onDoubleClick={onOpen}
            className={cx(
              "grid cursor-default content-center gap-1 border-rule border-b px-3 py-[6px]",
              on ? "row-chosen" : "hover:bg-sunk/60",
              n === at && "-outline-offset-2 outline-live group-focus-visible:outline-2",
            )}
          >
            <span className="flex min-w-0 items-center gap-2">
              <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />
              <span className="min-w-0 flex-1 truncate font-name text-[14px] leading-[17px]">{strip.look.name}</span>
            </span>
            {!isOfOne && (
              <span className="truncate text-small text-soft" title={`${projectName}, ${song}`}>
                {projectName}
              </span>
            )}
            <Shapes processors={processorsOf(strip.inserts)} tempo={tempo} most={3} />
          </div>
        );
      })}
    </div>
  );
}
