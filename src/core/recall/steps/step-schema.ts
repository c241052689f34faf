import type { z } from "zod";
import type { Step } from ".";
import { AnyStepSchema } from "./schemas";

/** A step as it is read; that what `setPart` brings is of its part, the compiler cannot see. */
export const StepSchema = AnyStepSchema as unknown as z.ZodType<Step>;
