import { z } from "zod";

/** The closed list of what can go wrong at the border, each with its HTTP status. */
export const ERROR_STATUS = {
  notUnderstood: 400,
  forbidden: 403,
  notFound: 404,
  wrongMethod: 405,
  stale: 409,
  tooLarge: 413,
  wrongType: 415,
  refused: 422,
  internal: 500,
  busy: 503,
  storage: 503,
  diskFull: 507,
} as const;

export type ErrorCode = keyof typeof ERROR_STATUS;

export const ApiErrorSchema = z.strictObject({
  code: z.enum(Object.keys(ERROR_STATUS) as [ErrorCode, ...ErrorCode[]]),
  message: z.string(),
  /** The field that is meant. */
  path: z.string().optional(),
  detail: z.unknown().optional(),
});
export const ErrorBodySchema = z.strictObject({ error: ApiErrorSchema });

export type ErrorBody = z.infer<typeof ErrorBodySchema>;
export type ApiError = z.infer<typeof ApiErrorSchema>;
