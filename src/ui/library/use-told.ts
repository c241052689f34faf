"use client";

import { useSearchParams } from "next/navigation";
import { type RefObject, useEffect, useRef } from "react";
import { forgetWritten, isEcho } from "./in-address";

/** Takes note of what the screen is told of its address, before anything reads it; true where that was only written here. */
export function useTold(): RefObject<boolean> {
  const told = useSearchParams().toString();
  const isOwn = useRef(false);
  useEffect(() => {
    isOwn.current = isEcho(told);
  }, [told]);
  useEffect(() => {
    window.addEventListener("popstate", forgetWritten);
    return () => {
      window.removeEventListener("popstate", forgetWritten);
      forgetWritten();
    };
  }, []);
  return isOwn;
}
