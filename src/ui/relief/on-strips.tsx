"use client";

import { counted } from "@/core/names/count";
import { Segments } from "../kit/segments";

/** Which strips are meant. */
export type Where = "chosen" | "all";

interface Props {
  /** How many are chosen. */
  readonly chosen: number;
  readonly value: Where;
  readonly onChange: (where: Where) => void;
}

/** The chosen strips, or all of the project. */
export const OnStrips = ({ chosen, value, onChange }: Props) => (
  <Segments
    label="On which strips"
    value={value}
    onChange={onChange}
    options={[
      {
        value: "chosen",
        label: chosen === 0 ? "Chosen strips" : `The ${counted(chosen, "chosen strip")}`,
        disabled: chosen === 0,
      },
      { value: "all", label: "All strips" },
    ]}
  />
);
