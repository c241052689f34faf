"use client";

import { useController } from "react-hook-form";
import type { ValuesQuery } from "@/contracts/library";
import { KnownField } from "../names/known-field";
import type { Fields } from "./card-edit";

interface WordsProps {
  readonly name: keyof Fields;
  readonly label: string;
  /** By which field of the search its words are known. */
  readonly of: ValuesQuery["field"];
  readonly focused?: boolean;
  readonly placeholder?: string;
  readonly fixed?: boolean;
}

/** A line of the sheet of cards: what it is called, and its words. */
export function WordsField({ name, ...props }: WordsProps) {
  const { field } = useController<Fields>({ name });
  return (
    <>
      <span className="self-center text-soft">{props.label}</span>
      <KnownField {...props} value={field.value} onValue={field.onChange} />
    </>
  );
}
