"use client";

import { create } from "zustand";

/** What is to be saved: strips of a project or draft, or one plugin or section of one of them. */
export interface SaveRequest {
  readonly project: string;
  readonly strips: readonly string[];
  /** As they were after this change of the project, which stays as it is; without it as they are, and the strips go by what is saved. */
  readonly revision?: number;
  /** How several are kept, and how that is called, until something else is chosen. */
  readonly as?: "set" | "mix";
  readonly name?: string;
  /** The layer of its instrument whose effects are meant, not its inserts. */
  readonly layer?: string;
  /** With a layer: its instrument by itself rather than its effects. */
  readonly instrument?: true;
  readonly node?: string;
}

export const useSave = create<{ readonly request: SaveRequest | null }>(() => ({ request: null }));

export function openSave(request: SaveRequest): void {
  useSave.setState({ request });
}

export function closeSave(): void {
  useSave.setState({ request: null });
}
