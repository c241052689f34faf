import type { ReactNode } from "react";
import { Key } from "../kit/bits";

interface Props {
  /** What would come of what is dragged; null where nothing is. */
  readonly words: string | null;
  /** How many strips are chosen. */
  readonly chosen: number;
  /** The cell in hand is one that Enter sets. */
  readonly canSet: boolean;
  /** What would be taken back. */
  readonly undo: string | null;
  /** At its right end. */
  readonly children: ReactNode;
}

/** The line below the rows: what is chosen, and the keys that go on from there. */
export const LedgerFoot = ({ words, chosen, canSet, undo, children }: Props) => (
  <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
    <span className="flex min-w-0 flex-1 items-center gap-[6px] overflow-hidden">
      {words && <span className="text-live">{words} · </span>}
      {chosen > 0 ? `${chosen} chosen` : "None chosen: a sound makes a new strip"} · <Key>A</Key> choose a sound{" "}
      <Key>B</Key> bench <Key>← →</Key> cells{" "}
      {canSet && (
        <>
          <Key>Enter</Key> set{" "}
        </>
      )}
      {undo && (
        <>
          <Key>Ctrl Z</Key> <span className="truncate">undo “{undo}”</span>
        </>
      )}
    </span>
    <span className="-mr-[6px] flex flex-none">{children}</span>
  </p>
);
