"use client";

import { type KeyboardEvent, useEffect, useState } from "react";
import { type KeyUse, findKeyProblem, pressesOf } from "@/core/settings/keys";
import { keyOf, showKey, useKeyUses } from "../actions/actions";
import { Button } from "./button";

interface Props {
  /** What it is the shortcut of. */
  readonly label: string;
  readonly keys: string | null;
  readonly onKeys: (keys: string | null) => void;
  readonly onClose: () => void;
}

const HELD = ["Shift", "Control", "Alt", "Meta"];

/** Takes one press, or two one after the other; Enter keeps them, Escape does not, Delete takes the shortcut away. */
export function KeyPress({ label, keys, onKeys, onClose }: Props) {
  const [pressed, setPressed] = useState("");
  // What this screen says of its keys is said more exactly. Those of the others come when keys are asked for.
  const [elsewhere, setElsewhere] = useState<readonly KeyUse[]>([]);
  const uses = [...useKeyUses(), ...elsewhere].filter((use) => use.keys !== keys);
  useEffect(() => void import("../actions/screen-keys").then((m) => setElsewhere(m.KEY_USES_ANYWHERE)), []);
  const problem = pressed === "" ? null : findKeyProblem(pressed, uses);
  const keep = () => {
    if (pressed !== "" && !problem) onKeys(pressed);
    onClose();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (HELD.includes(event.key) || event.key === "Tab") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") return onClose();
    if (event.key === "Enter" && pressed !== "") return keep();
    if (event.key === "Delete" || event.key === "Backspace") {
      onKeys(null);
      return onClose();
    }
    const press = keyOf(event.nativeEvent);
    const before = pressesOf(pressed);
    setPressed(before.length === 1 ? `${before[0]} ${press}` : press);
  };
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
      <Button small disabled={pressed === "" || problem !== null} onClick={keep}>
        Keep
      </Button>
      <Button small plain onClick={onClose}>
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
