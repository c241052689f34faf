"use client";

import { useEffect, useRef } from "react";
import type { BenchGestures } from "./use-bench-gestures";

const TYPING = "input, textarea, select, [contenteditable=true], [role=dialog]";

const isTyping = (): boolean =>
  document.activeElement?.closest(TYPING) !== null || (window.getSelection()?.toString() ?? "") !== "";

/** The system's own keys for copy, cut and paste, for whole plugins: as text, so that other windows can take it. */
export function useClipboard(act: BenchGestures): void {
  const newest = useRef(act);
  useEffect(() => {
    newest.current = act;
  });
  useEffect(() => {
    const put = (event: ClipboardEvent): boolean => {
      const text = isTyping() ? null : newest.current.copied();
      if (text === null) return false;
      event.clipboardData?.setData("text/plain", text);
      event.preventDefault();
      return true;
    };
    const onCopy = (event: ClipboardEvent) => void put(event);
    const onCut = (event: ClipboardEvent) => {
      if (put(event)) newest.current.takeOut();
    };
    const onPaste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (!isTyping() && text !== "" && newest.current.paste(text)) event.preventDefault();
    };
    document.addEventListener("copy", onCopy);
    document.addEventListener("cut", onCut);
    document.addEventListener("paste", onPaste);
    return () => {
      document.removeEventListener("copy", onCopy);
      document.removeEventListener("cut", onCut);
      document.removeEventListener("paste", onPaste);
    };
  }, []);
}
