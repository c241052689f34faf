import { randomBytes } from "node:crypto";

/** 96 random bits: no two meet. */
export const mintId = (): string => randomBytes(12).toString("base64url");
