"use client";

import { create } from "zustand";

/** What is to be saved: a strip of a project or draft, or one plugin of it. */
export interface SaveRequest {
  readonly project: string;
  readonly strip: string;
  readonly processor?: string;
}

export const useSave = create<{ readonly request: SaveRequest | null }>(() => ({ request: null }));

export function openSave(request: SaveRequest): void {
  useSave.setState({ request });
}

export function closeSave(): void {
  useSave.setState({ request: null });
}
