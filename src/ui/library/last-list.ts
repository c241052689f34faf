"use client";

import { create } from "zustand";
import type { PresetQuery } from "@/contracts/library";

interface LastList {
  /** Other lists of sounds keep to it. */
  readonly sort: PresetQuery["sort"];
  /** They stand until others are chosen, also where an address says nothing of them. */
  readonly columns: string | undefined;
}

/** How the library was listed when it was last on screen. */
export const useLastList = create<LastList>(() => ({ sort: undefined, columns: undefined }));

/** Orders that other lists have, too. */
const SHARED: readonly PresetQuery["sort"][] = ["used", "saved", "name"];

export const rememberList = ({ sort, columns }: LastList): void =>
  useLastList.setState({ sort: SHARED.includes(sort) ? sort : undefined, columns });
