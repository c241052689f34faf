"use client";

import { Fragment, type ReactNode } from "react";
import { Panel, PanelGroup, PanelResizeHandle } from "react-resizable-panels";
import { useIsBrowser } from "./use-is-browser";

interface Pane {
  readonly id: string;
  readonly label: string;
  /** In pixels at 1280 wide, and as much of the whole at other widths; the pane without a size takes what is left. */
  readonly size?: number;
  /** In pixels, at any width. All of them fit beside each other from 1024 on. */
  readonly min: number;
  readonly children: ReactNode;
}

/** What the rail leaves of a screen of 1280. */
const DRAWN_WIDTH = 1148;

const RAIL = 132;
/** Below this the page is scrolled. */
const LEAST_WIDTH = 1024 - RAIL;

/** In percent, as the panes count. */
const share = (pixels: number, width: number): number => (100 * pixels) / width;

/** Panes side by side, resized by dragging or by the arrow keys on the line between; each screen remembers its own. */
export function Panels({ id, panes }: { readonly id: string; readonly panes: readonly Pane[] }) {
  // What a person dragged is known to the browser only, so the panes appear there.
  if (!useIsBrowser()) return null;
  const width = Math.max(LEAST_WIDTH, window.innerWidth - RAIL);
  const leastOf = ({ min }: Pane) => share(min, width);
  const sized = panes.filter((pane) => pane.size !== undefined);
  const sizeOf = (pane: Pane) => Math.max(leastOf(pane), share(pane.size ?? 0, DRAWN_WIDTH));
  const left = 100 - sized.reduce((sum, pane) => sum + sizeOf(pane), 0);
  return (
    <PanelGroup direction="horizontal" autoSaveId={`diathesis.${id}`} className="h-full">
      {panes.map((pane, at) => (
        <Fragment key={pane.id}>
          {at > 0 && (
            <PanelResizeHandle
              aria-label={`Width of ${pane.label}`}
              className="w-px bg-rule outline-none hover:bg-live focus-visible:w-[3px] focus-visible:bg-live"
            />
          )}
          <Panel
            id={pane.id}
            order={at}
            minSize={leastOf(pane)}
            defaultSize={pane.size === undefined ? left : sizeOf(pane)}
            className="h-full min-w-0"
          >
            {pane.children}
          </Panel>
        </Fragment>
      ))}
    </PanelGroup>
  );
}
