import { z } from "zod";
import { KeySchema } from "../../chains/schema";

/** The fields that every step has. */
export const step = <K extends string, V extends z.ZodType>(kind: K, value: V) => ({
  id: KeySchema,
  kind: z.literal(kind),
  from: value,
  to: value,
});

export const onNode = { node: KeySchema };
