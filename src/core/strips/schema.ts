import { z } from "zod";
import { KeySchema } from "../chains/schema";
import { STRIP_KINDS } from "../documents/strip-kinds";
import type { PartName, PartValues } from "./parts";
import { PART_SCHEMAS } from "./parts/schemas";

/** The compiler names a part whose schema is missing. */
const parts: { readonly [N in PartName]: z.ZodType<PartValues[N]> } = PART_SCHEMAS;

export const StripSchema = z.strictObject({ id: KeySchema, kind: z.enum(STRIP_KINDS), ...parts });

/** A strip as a preset holds it: any subset of its parts. */
export const SavedStripSchema = z.strictObject({ kind: z.enum(STRIP_KINDS), ...z.object(parts).partial().shape });
