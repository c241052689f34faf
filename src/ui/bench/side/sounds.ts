"use client";

import { create } from "zustand";

/** Whether the panel of sounds is for the whole chain rather than for what is selected. */
export const useSounds = create<{ readonly whole: boolean; readonly setWhole: (whole: boolean) => void }>((set) => ({
  whole: false,
  setWhole: (whole) => set({ whole }),
}));
