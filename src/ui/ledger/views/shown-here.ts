"use client";

import { create } from "zustand";
import { persist } from "zustand/middleware";
import { ALL_ROWS, type ShownRows } from "@/core/projects/shown-rows";
import type { Layout } from "./layout";

/** What of a project is shown in this browser now: a view of it, or one with what was changed since it was taken. */
export interface ShownHere {
  /** The view that was taken last; null for none. */
  readonly view: string | null;
  readonly rows: ShownRows;
  /** The columns; null where they are as in all projects. */
  readonly layout: Layout | null;
}

export const ALL_HERE: ShownHere = { view: null, rows: ALL_ROWS, layout: null };

/** By project, for this browser alone; it survives a reload. */
const useStore = create<{ readonly shown: Readonly<Record<string, ShownHere>> }>()(
  persist(() => ({ shown: {} }), { name: "diathesis.shown", version: 1 }),
);

export const useShownHere = (project: string): ShownHere => useStore(({ shown }) => shown[project] ?? ALL_HERE);

export function changeShown(project: string, change: (now: ShownHere) => ShownHere): void {
  const { shown } = useStore.getState();
  const was = shown[project] ?? ALL_HERE;
  const is = change(was);
  if (is !== was) useStore.setState({ shown: { ...shown, [project]: is } });
}
