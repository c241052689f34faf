"use client";

import * as arrange from "@/core/recall/arrange";
import type { Look } from "@/core/strips/parts/look";
import { CARD_COLOURS, CARD_ICONS } from "../../kit/card-mark";
import { Field, INPUT } from "../../kit/field";
import { mintKey } from "../../kit/mint";
import { inPlaceKeys } from "../../kit/in-place";
import type { CardProps } from "./card";

const COLOURS = Object.keys(CARD_COLOURS);
const ICONS = Object.keys(CARD_ICONS);

/** The look with one field set; without it where that is empty. */
function withField(look: Look, field: "colour" | "icon", value: string): Look {
  const { [field]: _, ...rest } = look;
  return value === "" ? rest : { ...rest, [field]: value };
}

/** How a strip is called, and how it is marked. The name is of one; the mark of all that are chosen. */
export function LookCard({ strip, strips, turning, onClose }: CardProps) {
  const { name, colour = "", icon = "" } = strip.look;
  const mark = (field: "colour" | "icon", value: string) =>
    turning.change(field === "colour" ? "Colour" : "Icon", (now) =>
      arrange.changeParts(arrange.standing(now, strips), "look", (look) => withField(look, field, value), mintKey),
    );
  const rename = (typed: string) => {
    if (typed === "" || typed === name) return;
    turning.change(`Call it ${typed}`, (now) =>
      arrange.changeParts(arrange.standing(now, [strip.id]), "look", (look) => ({ ...look, name: typed }), mintKey),
    );
  };
  return (
    <div className="grid grid-cols-[60px_1fr] items-center gap-x-3 gap-y-2">
      <Field label="Name">
        <input
          autoFocus
          key={name}
          defaultValue={name}
          maxLength={200}
          className={INPUT}
          onFocus={(event) => event.target.select()}
          onBlur={(event) => rename(event.target.value.trim())}
          onKeyDown={(event) => {
            if (event.key === "Enter") {
              event.preventDefault();
              rename(event.currentTarget.value.trim());
              onClose();
            } else inPlaceKeys(name)(event);
          }}
        />
      </Field>
      <Field label="Colour">
        <select className={INPUT} value={colour} onChange={(event) => mark("colour", event.target.value)}>
          <option value="">none</option>
          {COLOURS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </Field>
      <Field label="Icon">
        <select className={INPUT} value={icon} onChange={(event) => mark("icon", event.target.value)}>
          <option value="">that of its kind</option>
          {ICONS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </Field>
    </div>
  );
}
