"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Completion } from "@/core/search/complete";
import { useActions } from "../actions/actions";
import { useFinder } from "../actions/finder";
import type { PaletteProps } from "./palette";
import { Completions, completionProps, useCompletions } from "./completions";
import { FIELD, FIELD_INPUT, FieldFrame } from "./field-frame";

const NONE: readonly Completion[] = [];

type RenderPalette = (props: PaletteProps) => ReactNode;

/**
 * The list of actions comes when it is first asked for. Until then what is typed goes into the plain field, and in one
 * stroke from the one to the other: no letter falls between them, nor the Enter that ends them.
 */
function usePalette(open: boolean): RenderPalette | null {
  const [render, setRender] = useState<RenderPalette | null>(null);
  useEffect(() => {
    if (open && !render) void import("./palette").then((m) => setRender(() => m.renderPalette));
  }, [open, render]);
  return render;
}

export function ActionField() {
  const finder = useFinder((f) => f.finder);
  const field = useRef<HTMLInputElement>(null);
  const before = useRef<HTMLElement | null>(null);
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [entered, setEntered] = useState<readonly string[]>([]);
  const renderPalette = usePalette(open);
  const commands = open || !finder;
  const [focused, setFocused] = useState(false);
  const offered = !commands && focused ? (finder?.completions ?? NONE) : NONE;
  const completions = useCompletions(offered, (text) => finder?.onWords(text));
  const focus = (withCommands: boolean) => {
    setOpen(withCommands);
    setTyped("");
    field.current?.focus();
    field.current?.select();
  };
  /** An Enter that was kept for the list counts once: who comes back later has not pressed it. */
  const leave = () => {
    setOpen(false);
    setEntered([]);
  };
  const close = () => {
    leave();
    setTyped("");
    const { current: back } = before;
    (back?.isConnected ? back : document.querySelector("main"))?.focus();
  };
  useActions(
    [
      {
        id: "find",
        title: finder ? "Find a sound" : "Find a sound, a strip, an action",
        group: "Everywhere",
        keys: ["/"],
        run: () => focus(!finder),
      },
      { id: "actions", title: "All actions", group: "Everywhere", keys: ["Ctrl+K"], run: () => focus(true) },
    ],
    "everywhere",
  );
  if (open && renderPalette)
    // eslint-disable-next-line react-hooks/refs -- it makes an element: what is handed on is called later
    return renderPalette({ typed, entered, onTyped: setTyped, onDone: close, onLeft: leave });
  return (
    <div className={FIELD}>
      <FieldFrame>
        <input
          ref={field}
          aria-label="Find a sound, a strip, an action"
          value={commands ? typed : (finder?.words ?? "")}
          onChange={({ target }) => (commands ? setTyped(target.value) : finder?.onWords(target.value))}
          {...(commands ? {} : completionProps(completions))}
          onFocus={({ relatedTarget }) => {
            before.current = relatedTarget instanceof HTMLElement ? relatedTarget : null;
            setFocused(true);
            if (!finder) setOpen(true);
          }}
          onBlur={() => setFocused(false)}
          onKeyDown={(event) => {
            if (completions.onKeyDown(event)) return;
            if (event.key === "Escape") {
              event.preventDefault();
              if (!commands) finder?.onWords("");
              close();
            }
            // What is entered before the list is here is done when it comes, one after the other.
            if (commands && event.key === "Enter") {
              // Where the list has just come, a sheet may open within this stroke: the stroke is not to send what stands in it.
              event.preventDefault();
              setEntered([...entered, typed]);
              setTyped("");
            }
            if (!commands && (event.key === "ArrowDown" || event.key === "Enter")) {
              event.preventDefault();
              finder?.onLeave();
            }
          }}
          placeholder={finder?.hint ?? "Find a strip, a sound, an action"}
          className={FIELD_INPUT}
        />
      </FieldFrame>
      {!commands && <Completions {...completions} />}
    </div>
  );
}
