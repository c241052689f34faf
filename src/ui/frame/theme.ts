"use client";

import { create } from "zustand";

export type Theme = "day" | "lamp";

const YEAR = 31_536_000;

/** null follows the system. The cookie lets the server send the page in its theme. */
export const useTheme = create<{ readonly theme: Theme | null }>(() => ({ theme: null }));

export const themeNow = (chosen: Theme | null): Theme =>
  chosen ?? (typeof matchMedia === "function" && matchMedia("(prefers-color-scheme: dark)").matches ? "lamp" : "day");

export function setTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  document.cookie = `theme=${theme}; path=/; max-age=${YEAR}; samesite=strict`;
  useTheme.setState({ theme });
}
