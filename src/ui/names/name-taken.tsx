"use client";

import { useDeferredValue, useMemo } from "react";
import { fold } from "@/core/names/words";
import { useTaken } from "./taken";

interface Props {
  readonly name: string;
  /** Whose own name it may be. */
  readonly except: string;
}

export const TakenNote = () => (
  <span role="status" className="block text-small text-edit">
    Another sound has that name.
  </span>
);

/** Says, where a name is given, that another sound has it. Nothing is held back: two may be called the same. */
export function NameTaken({ name, except }: Props) {
  const wanted = useDeferredValue(name.trim());
  const names = useMemo(() => [wanted], [wanted]);
  const spared = useMemo(() => [except], [except]);
  const taken = useTaken(names, spared);
  if (wanted === "" || !taken.names.some((other) => fold(other) === fold(wanted))) return null;
  return <TakenNote />;
}
