"use client";

import { create } from "zustand";

type Touched = "project" | "library";

/** What was changed last: on a screen that shows the library, one key takes back that, whichever of the two it was. */
export const useLastTouched = create<{ readonly last: Touched | null }>(() => ({ last: null }));

export const touch = (last: Touched): void => useLastTouched.setState({ last });
