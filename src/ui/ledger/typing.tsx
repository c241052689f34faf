"use client";

import type { Strip } from "@/core/strips/strip";
import { TypedValue } from "../kit/value-line";
import type { ColumnId } from "./views/layout";
import { type Dial, specOf } from "./turn";

/** The value that a number typed on a cell is for; null where the column has none. */
export function dialOf(strip: Strip, column: ColumnId): Dial | null {
  if (strip.kind === "folder") return null;
  if (column === "level") return { of: "fader" };
  if (column === "pan") return { of: "pan" };
  const [send] = strip.sends;
  return column === "sends" && send && "strip" in send.to ? { of: "send", to: send.to.strip, key: send.key } : null;
}

function valueOf(strip: Strip, { of, ...dial }: Dial): number {
  if (of === "fader") return strip.level.fader;
  if (of === "pan" || of === "width") return strip.pan[of];
  if (of === "gain") return strip.source.type === "input" ? strip.source.gain : 0;
  return strip.sends.find(({ key }) => "key" in dial && key === dial.key)?.level ?? 0;
}

interface Props {
  readonly strip: Strip;
  readonly column: ColumnId;
  readonly typed: string;
  readonly onTyped: (typed: string | null) => void;
  readonly onTypedEnd: (value: number) => void;
}

/** A number that is typed right in its cell. */
export function Typing({ strip, column, typed, onTyped, onTypedEnd }: Props) {
  const dial = dialOf(strip, column);
  if (!dial) return null;
  return (
    <TypedValue
      spec={specOf(dial)}
      value={valueOf(strip, dial)}
      typed={typed}
      onTyped={onTyped}
      onChangeEnd={(value) => typeof value === "number" && onTypedEnd(value)}
    />
  );
}
