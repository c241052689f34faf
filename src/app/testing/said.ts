import { errorText } from "@/ui/kit/error-text";
import { create } from "zustand";

/** What was said at the lower edge, in place of ui/kit/say.ts: `vi.mock("../kit/say", () => import("@/app/testing/said"))`. */
export const said: string[] = [];

export const say = (words: string): void => void said.push(words);
export const sayError = (words: string): void => say(words);

export const orSay = (work: Promise<unknown>): void => void work.catch((error: unknown) => say(errorText(error)));

/** No place for words is asked for. */
export const useWordsWanted = create(() => ({ wanted: false }));
export const wantWords = (): void => undefined;
