"use client";

import { create } from "zustand";
import type { PresetQuery } from "@/contracts/library";

/** How the library was sorted when it was last on screen: other lists of sounds keep to it. */
export const useLastList = create<{ readonly sort: PresetQuery["sort"] }>(() => ({ sort: undefined }));

export const rememberList = (sort: PresetQuery["sort"]): void => useLastList.setState({ sort });
