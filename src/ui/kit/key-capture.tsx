"use client";

import { Suspense, lazy, useState } from "react";
import { showKey } from "../actions/actions";
import { Key, Opening } from "./bits";

// Not there until keys are asked for; what is pressed meanwhile is for it.
const KeyPress = lazy(() => import("./key-press").then((m) => ({ default: m.KeyPress })));

interface Props {
  /** What it is the shortcut of. */
  readonly label: string;
  readonly keys: string | null;
  /** What does it where it has no shortcut of its own. */
  readonly standard?: string | null;
  readonly onKeys: (keys: string | null) => void;
}

/** The shortcut of a thing; a press on it takes another. */
export function KeyCapture({ label, keys, standard = null, onKeys }: Props) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button
        type="button"
        aria-label={keys === null ? `Give ${label} a shortcut` : `Shortcut of ${label}: ${showKey(keys)}. Change it`}
        onClick={() => setOpen(true)}
        className="min-h-6 text-small text-soft hover:text-ink"
      >
        {keys === null && standard === null ? "none" : <Key>{showKey(keys ?? standard ?? "")}</Key>}
      </button>
    );
  return (
    <Suspense fallback={<Opening />}>
      <KeyPress label={label} keys={keys} onKeys={onKeys} onClose={() => setOpen(false)} />
    </Suspense>
  );
}
