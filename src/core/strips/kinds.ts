import type { STRIP_KINDS } from "../chains/schema";

export type StripKind = (typeof STRIP_KINDS)[number];

export const isBus = (kind: StripKind): boolean => kind === "return" || kind === "group" || kind === "main";
