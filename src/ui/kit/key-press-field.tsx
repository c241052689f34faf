"use client";

import { type KeyboardEvent, useState } from "react";
import { findKeyProblem, pressesOf } from "@/core/settings/keys";
import { keyOf, showKey, useKeyUses } from "../actions/actions";
import { Button } from "./button";

interface Props {
  /** What it is the shortcut of. */
  readonly label: string;
  /** The shortcut as it stands. */
  readonly keys: string | null;
  readonly onKeys: (keys: string | null) => void;
  readonly onDone: () => void;
}

const HELD = ["Shift", "Control", "Alt", "Meta"];

/** Takes one press, or two one after the other; Enter keeps them, Escape does not, Delete takes the shortcut away. */
export function KeyPressField({ label, keys, onKeys, onDone }: Props) {
  const [pressed, setPressed] = useState("");
  const uses = useKeyUses().filter((use) => use.keys !== keys);
  const problem = pressed === "" ? null : findKeyProblem(pressed, uses);
  const keep = () => {
    if (pressed !== "" && !problem) onKeys(pressed);
    onDone();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (HELD.includes(event.key) || event.key === "Tab") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") return onDone();
    if (event.key === "Enter" && pressed !== "") return keep();
    if (event.key === "Delete" || event.key === "Backspace") {
      onKeys(null);
      return onDone();
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
      <Button small plain onClick={onDone}>
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
