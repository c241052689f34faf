"use client";

import { Suspense, lazy, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { Button } from "../kit/button";
import { KEEP_BUTTON } from "./keep-words";

// Menus are large: this one comes when it is first asked for.
const KeepMenu = lazy(() => import("./keep-menu").then((m) => ({ default: m.KeepMenu })));

interface Props {
  readonly preset: PresetRow;
  readonly version: number;
  readonly tempo: number;
}

/** Offers a sound as something else than a card. */
export function KeepButton(props: Props) {
  const [isAsked, ask] = useState(false);
  const button = <Button {...KEEP_BUTTON} aria-haspopup="menu" onClick={() => ask(true)} />;
  if (!isAsked) return button;
  return (
    <Suspense fallback={button}>
      <KeepMenu {...props} />
    </Suspense>
  );
}
