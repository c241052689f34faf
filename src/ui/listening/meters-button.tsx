"use client";

import { type ReactNode, Suspense, lazy, useRef, useState } from "react";

/** Their code comes when they are opened. */
const Meters = lazy(() => import("./meters").then((m) => ({ default: m.Meters })));

/** The loudness in the bar, which opens the meters. */
export function MetersButton({ children }: { readonly children: ReactNode }) {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <>
      <button
        ref={button}
        type="button"
        title="Open the meters"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="rounded-card px-1 hover:bg-sunk"
      >
        <span className="sr-only">Loudness before matching: </span>
        {children}
        <span className="sr-only">, open the meters</span>
      </button>
      <Suspense>{open && <Meters anchor={button} onClose={() => setOpen(false)} />}</Suspense>
    </>
  );
}
