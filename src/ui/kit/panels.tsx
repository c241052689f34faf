"use client";

import { Fragment, type ReactNode } from "react";
import { Group, Panel, Separator, useDefaultLayout } from "react-resizable-panels";

import { useIsBrowser } from "./use-is-browser";

interface Pane {
  readonly id: string;
  readonly label: string;
  /** In pixels; the pane without a size takes what is left. */
  readonly size?: number;
  readonly min: number;
  readonly children: ReactNode;
}

/** Panes side by side, resized by dragging or by the arrow keys on the line between; each screen remembers its own. */
export function Panels({ id, panes }: { readonly id: string; readonly panes: readonly Pane[] }) {
  // What a person dragged is known to the browser only, so the panes appear there.
  return useIsBrowser() ? <Mounted id={id} panes={panes} /> : null;
}

function Mounted({ id, panes }: { readonly id: string; readonly panes: readonly Pane[] }) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({
    id,
    panelIds: panes.map((p) => p.id),
    storage: localStorage,
  });
  return (
    <Group id={id} {...(defaultLayout ? { defaultLayout } : {})} onLayoutChanged={onLayoutChanged} className="h-full">
      {panes.map((pane, at) => (
        <Fragment key={pane.id}>
          {at > 0 && (
            <Separator
              aria-label={`Width of ${pane.label}`}
              className="w-px bg-rule outline-none hover:bg-live focus-visible:w-[3px] focus-visible:bg-live"
            />
          )}
          <Panel
            id={pane.id}
            minSize={pane.min}
            {...(pane.size === undefined
              ? {}
              : { defaultSize: pane.size, groupResizeBehavior: "preserve-pixel-size" as const })}
            className="h-full min-w-0"
          >
            {pane.children}
          </Panel>
        </Fragment>
      ))}
    </Group>
  );
}
