/** What a strip can be. */
export const STRIP_KINDS = ["audio", "instrument", "return", "group", "main", "folder"] as const;
export type StripKind = (typeof STRIP_KINDS)[number];

export const isBus = (kind: StripKind): boolean => kind === "return" || kind === "group" || kind === "main";
