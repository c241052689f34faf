"use client";

import { Fragment, type ReactNode } from "react";
import { Panel, PanelGroup, PanelResizeHandle } from "react-resizable-panels";
import { useIsBrowser } from "./use-is-browser";

interface Pane {
  readonly id: string;
  readonly label: string;
  /** In pixels at 1280 wide; the pane without a size takes what is left. */
  readonly size?: number;
  readonly min: number;
  readonly children: ReactNode;
}

/** What the rail leaves of a screen of 1280. */
const DRAWN_WIDTH = 1148;

const share = (pixels: number): number => (100 * pixels) / DRAWN_WIDTH;

/** Panes side by side, resized by dragging or by the arrow keys on the line between; each screen remembers its own. */
export function Panels({ id, panes }: { readonly id: string; readonly panes: readonly Pane[] }) {
  // What a person dragged is known to the browser only, so the panes appear there.
  if (!useIsBrowser()) return null;
  const taken = panes.reduce((sum, { size = 0 }) => sum + size, 0);
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
            minSize={share(pane.min)}
            defaultSize={share(pane.size ?? DRAWN_WIDTH - taken)}
            className="h-full min-w-0"
          >
            {pane.children}
          </Panel>
        </Fragment>
      ))}
    </PanelGroup>
  );
}
