"use client";

import { type ReactNode, Suspense } from "react";
import { useIsBrowser } from "./use-is-browser";

/**
 * What fills the middle of the page. It appears in the browser only: what it shows is known there, and parts of the page that were taken
 * over before it may know more by then than the server has drawn.
 */
export const Screen = ({ children }: { readonly children: ReactNode }) => (
  <Suspense>{useIsBrowser() ? children : null}</Suspense>
);
