"use client";

import equal from "fast-deep-equal";
import type { ReactNode } from "react";
import type { ProjectRow } from "@/contracts/records";
import { cx } from "../kit/class-names";
import { type Drawer, clientDrawers } from "./filing";

interface Props {
  readonly rows: readonly ProjectRow[];
  readonly binned: number;
  readonly drawer: Drawer;
  readonly onDrawer: (drawer: Drawer) => void;
}

/** Where projects lie: by client, and the years of the one that is open; those to begin from, and the bin. */
export function Drawers({ rows, binned, drawer, onDrawer }: Props) {
  const at = (one: Drawer) => ({ isOpen: equal(one, drawer), onOpen: () => onDrawer(one) });
  const starters = rows.filter(({ starter }) => starter).length;
  return (
    <nav aria-label="Drawers" className="h-full overflow-auto py-[14px]">
      <One {...at({ of: "all" })} count={rows.length}>
        All projects
      </One>
      <h2 className="px-[14px] pt-4 pb-1 text-small text-soft">By client</h2>
      {clientDrawers(rows).map(({ client, count, years }) => (
        <div key={client}>
          <One {...at({ of: "client", client, year: null })} count={count}>
            {client === "" ? "No client" : client}
          </One>
          {drawer.of === "client" &&
            drawer.client === client &&
            years.map(({ year, count: inYear }) => (
              <One key={year} inner {...at({ of: "client", client, year })} count={inYear}>
                {year}
              </One>
            ))}
        </div>
      ))}
      <div className="mt-4 border-rule border-t pt-3">
        <One {...at({ of: "starters" })} count={starters}>
          Starters
        </One>
        <One {...at({ of: "bin" })} count={binned}>
          Bin
        </One>
      </div>
    </nav>
  );
}

interface OneProps {
  readonly isOpen: boolean;
  readonly onOpen: () => void;
  readonly count: number;
  readonly inner?: boolean;
  readonly children: ReactNode;
}

const One = ({ isOpen, onOpen, count, inner = false, children }: OneProps) => (
  <button
    type="button"
    aria-current={isOpen ? "true" : undefined}
    onClick={onOpen}
    className={cx(
      "flex h-[30px] w-full items-center gap-2 pr-[14px] text-left focus-visible:-outline-offset-2",
      inner ? "pl-[30px]" : "pl-[14px]",
      isOpen ? "row-chosen" : "hover:bg-sunk/60",
    )}
  >
    <span className="min-w-0 flex-1 truncate">{children}</span>
    <span className="num-small flex-none text-soft">{count}</span>
  </button>
);
