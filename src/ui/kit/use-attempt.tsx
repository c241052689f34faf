"use client";

import { errorText } from "./error-text";
import { type ReactNode, useRef, useState } from "react";
import { Refused } from "./field";

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
  const underWay = useRef(false);
  const attempt = async (work: () => Promise<unknown>, onRefused?: (error: unknown) => void) => {
    if (underWay.current) return;
    underWay.current = true;
    setBusy(true);
    try {
      await work();
      setRefused(null);
    } catch (error) {
      onRefused?.(error);
      setRefused(errorText(error));
    } finally {
      underWay.current = false;
      setBusy(false);
    }
  };
  return { refusal: refused === null ? null : <Refused>{refused}</Refused>, busy, attempt };
}
