import { create } from "zustand";
import type { PresetRow } from "@/contracts/records";

/** What is dragged from the list carries this kind of data; which sounds they are is what is chosen. */
export const DRAGGED_SOUNDS = "application/x-diathesis-sounds";

/** What is dragged from the tree: a folder. */
export const DRAGGED_FOLDER = "application/x-diathesis-folder";

/** The sound that is on its way by the hand: what it would do is shown before it is let go. */
export const useDragged = create<{ readonly sound: PresetRow | null }>(() => ({ sound: null }));

export const takeSound = (sound: PresetRow | null): void => useDragged.setState({ sound });
