"use client";

import { useLayoutEffect, useRef } from "react";

/**
 * For a field whose text is proposed until a person types: while it has the focus and no one has touched it, it stands
 * selected, also when the proposal comes late, so that the first letter takes its place. Returns what the field is given.
 */
export function useProposedText(isTyped: boolean) {
  const field = useRef<HTMLInputElement | null>(null);
  const isTouched = useRef(false);
  // After every change: a form that is filled in anew sets the text behind React's back, and with it the selection.
  useLayoutEffect(() => {
    const { current } = field;
    if (current && !isTyped && !isTouched.current && current === document.activeElement) current.select();
  });
  const touch = () => {
    isTouched.current = true;
  };
  const take = (element: HTMLInputElement | null) => {
    field.current = element;
  };
  return { take, handlers: { onKeyDown: touch, onPointerDown: touch } };
}
