"use client";

import { type KeyboardEvent, useState } from "react";
import type * as rulesOfKeys from "@/core/settings/keys";
import type { KeyUse } from "@/core/settings/keys";
import { keyOf, showKey, useKeyUses } from "../actions/actions";
import { Key } from "./bits";
import { Button } from "./button";

interface Props {
  /** What it is the shortcut of. */
  readonly label: string;
  readonly keys: string | null;
  /** What does it where it has no shortcut of its own. */
  readonly standard?: string | null;
  readonly onKeys: (keys: string | null) => void;
}

const HELD = ["Shift", "Control", "Alt", "Meta"];

/** Takes one press, or two one after the other; Enter keeps them, Escape does not, Delete takes the shortcut away. */
export function KeyCapture({ label, keys, standard = null, onKeys }: Props) {
  const [pressed, setPressed] = useState<string | null>(null);
  // What this screen says of its keys is said more exactly. Those of the others come when keys are asked for.
  const [elsewhere, setElsewhere] = useState<readonly KeyUse[]>([]);
  const uses = [...useKeyUses(), ...elsewhere].filter((use) => use.keys !== keys);
  // What is pressed is taken at once; whether it may be is known as soon as they are here.
  const [rules, setRules] = useState<typeof rulesOfKeys | null>(null);
  const begin = () => {
    setPressed("");
    void import("@/core/settings/keys").then(setRules);
    void import("../actions/screen-keys").then((m) => setElsewhere(m.KEY_USES_ANYWHERE));
  };
  const problem = pressed ? (rules?.findKeyProblem(pressed, uses) ?? null) : null;
  const canKeep = rules !== null && Boolean(pressed) && problem === null;
  const close = () => setPressed(null);
  const keep = () => {
    if (rules === null) return;
    if (canKeep && pressed) onKeys(pressed);
    close();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (HELD.includes(event.key) || event.key === "Tab") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") return close();
    if (event.key === "Enter" && pressed !== "") return keep();
    if (event.key === "Delete" || event.key === "Backspace") {
      onKeys(null);
      return close();
    }
    const press = keyOf(event.nativeEvent);
    // Of two presses the second stands behind the first; a third begins anew.
    setPressed((now) => (now && !now.includes(" ") ? `${now} ${press}` : press));
  };
  if (pressed === null)
    return (
      <button
        type="button"
        aria-label={keys === null ? `Give ${label} a shortcut` : `Shortcut of ${label}: ${showKey(keys)}. Change it`}
        onClick={begin}
        className="min-h-6 text-small text-soft hover:text-ink"
      >
        {keys === null && standard === null ? "none" : <Key>{showKey(keys ?? standard ?? "")}</Key>}
      </button>
    );
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <input
        autoFocus
        readOnly
        aria-label={`Press the keys for ${label}`}
        value={pressed === "" ? "" : showKey(pressed)}
        placeholder="press keys"
        onKeyDown={onKeyDown}
        className="num-small h-6 w-[96px] rounded-card border border-live bg-ground px-2"
      />
      <Button small disabled={!canKeep} onClick={keep}>
        Keep
      </Button>
      <Button small plain onClick={close}>
        Cancel
      </Button>
      {problem && (
        <span role="alert" className="w-full text-small text-alert">
          {problem}
        </span>
      )}
    </span>
  );
}
