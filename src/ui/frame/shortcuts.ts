"use client";

import { create } from "zustand";

export const useShortcuts = create(() => ({ open: false }));

export function openShortcuts(): void {
  useShortcuts.setState({ open: true });
}

export function closeShortcuts(): void {
  useShortcuts.setState({ open: false });
}
