"use client";

import { Suspense, lazy, useState } from "react";
import { showKey } from "../actions/actions";
import { Key, Opening } from "./bits";

// It comes when a shortcut is first given.
const KeyPressField = lazy(() => import("./key-press-field").then((m) => ({ default: m.KeyPressField })));

interface Props {
  /** What it is the shortcut of. */
  readonly label: string;
  readonly keys: string | null;
  readonly onKeys: (keys: string | null) => void;
}

/** The shortcut of something, and the place to give it another. */
export function KeyCapture({ label, keys, onKeys }: Props) {
  const [asked, setAsked] = useState(false);
  if (asked)
    return (
      <Suspense fallback={<Opening />}>
        <KeyPressField label={label} keys={keys} onKeys={onKeys} onDone={() => setAsked(false)} />
      </Suspense>
    );
  return (
    <button
      type="button"
      aria-label={keys === null ? `Give ${label} a shortcut` : `Shortcut of ${label}: ${showKey(keys)}. Change it`}
      onClick={() => setAsked(true)}
      className="min-h-6 text-small text-soft hover:text-ink"
    >
      {keys === null ? "none" : <Key>{showKey(keys)}</Key>}
    </button>
  );
}
