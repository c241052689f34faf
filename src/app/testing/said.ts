import { errorText } from "@/ui/kit/error-text";
import { create } from "zustand";

/** What was said at the lower edge, in place of ui/kit/say.ts: `vi.mock("../kit/say", () => import("@/app/testing/said"))`. */
export const said: string[] = [];

interface Saying {
  readonly action?: { readonly label: string; readonly onClick: () => void };
}

/** What each of them offered beside its words, as a press of its button would do it. */
const offered: (Saying["action"] | undefined)[] = [];

export const say = (words: string, { action }: Saying = {}): void => {
  said.push(words);
  offered[said.length - 1] = action;
};
export const sayError = (words: string): void => say(words);

/** Presses what the last one offers. */
export const pressSaid = (): void => offered[said.length - 1]?.onClick();

export const orSay = (work: Promise<unknown>): void => void work.catch((error: unknown) => say(errorText(error)));

/** No place for words is asked for. */
export const useWordsWanted = create(() => ({ wanted: false }));
export const wantWords = (): void => undefined;
