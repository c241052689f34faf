"use client";

import { errorText } from "./error-text";
import { type ReactNode, useState } from "react";
import { Refused } from "./field";
import { useSingly } from "./use-singly";

/** Work of a sheet that may be refused: one piece at a time, and why the last was refused stands in the sheet. */
export function useAttempt(): {
  /** Why the last was refused; nothing where it was done. */
  readonly refusal: ReactNode;
  readonly busy: boolean;
  /** Does it, unless some is under way already; a second press is not a second piece of work. */
  readonly attempt: (work: () => Promise<unknown>, onRefused?: (error: unknown) => void) => Promise<void>;
} {
  const [refused, setRefused] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const singly = useSingly();
  const attempt = (work: () => Promise<unknown>, onRefused?: (error: unknown) => void) =>
    singly(async () => {
      setBusy(true);
      try {
        await work();
        setRefused(null);
      } catch (error) {
        onRefused?.(error);
        setRefused(errorText(error));
      } finally {
        setBusy(false);
      }
    });
  return { refusal: refused === null ? null : <Refused>{refused}</Refused>, busy, attempt };
}
