"use client";

import { useState } from "react";
import type { ValuesQuery } from "@/contracts/library";
import { several } from "@/core/names/several";
import { SeveralField } from "../kit/several-field";
import { splitTags } from "../kit/split-tags";
import { useKnown } from "./known";

interface Props {
  readonly label: string;
  /** By which field of the search its words are known. */
  readonly of: ValuesQuery["field"];
  /** Several in one line, as a card keeps them; tags stand between commas. */
  readonly value: string;
  readonly onValue: (value: string) => void;
  readonly focused?: boolean;
  readonly placeholder?: string;
  readonly fixed?: boolean;
}

/** Words of a card, each by itself; those that other cards say are offered. No label goes around it: a click on that would take the first off. */
export function KnownField({ label, of, value, onValue, focused = false, placeholder = "", fixed = false }: Props) {
  const [begun, setBegun] = useState("");
  const [isAsked, setAsked] = useState(false);
  const known = useKnown(of, begun, isAsked);
  return (
    <SeveralField
      label={label}
      value={value}
      split={of === "tag" ? splitTags : several}
      between={of === "tag" ? ", " : "; "}
      autoFocus={focused}
      disabled={fixed}
      placeholder={placeholder}
      known={known}
      onTyped={setBegun}
      onFocus={() => setAsked(true)}
      onValue={onValue}
    />
  );
}
