"use client";

import { useState } from "react";
import { formatTime, parseTime } from "@/core/units/time";
import { Button } from "../kit/button";
import { Refused } from "../kit/field";
import { Sheet } from "../kit/sheet";
import { LONGEST } from "./decode";
import { useToCut } from "./materials";

/** Which half minute of a long recording is kept. */
export function CutSheet() {
  const toCut = useToCut((c) => c.toCut);
  const [typed, setTyped] = useState("0:00");
  if (!toCut) return null;
  const { name, seconds, answer } = toCut;
  const last = Math.max(0, seconds - LONGEST);
  const parsed = parseTime(typed);
  const fault = !parsed.ok
    ? parsed.error
    : parsed.value > last
      ? `It is ${formatTime(seconds)} long: ${LONGEST} s of it begin at ${formatTime(last)} at the latest.`
      : null;
  const from = parsed.ok ? Math.min(last, parsed.value) : 0;
  return (
    <Sheet
      open
      onClose={() => answer(null)}
      title={`Which ${LONGEST} s of “${name}”?`}
      aside={`${formatTime(seconds)} long`}
      className="w-[560px]"
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (fault === null) answer(from);
        }}
      >
        <label className="flex items-center gap-3">
          Begins at
          <input
            autoFocus
            aria-invalid={fault !== null}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            className="num h-[30px] w-[96px] rounded-card border border-bound bg-ground px-2 text-right"
          />
          <input
            type="range"
            aria-label="Where it begins"
            aria-valuetext={formatTime(from)}
            min={0}
            max={Math.floor(last)}
            value={Math.floor(from)}
            onChange={(event) => setTyped(formatTime(Number(event.target.value)))}
            className="flex-1 accent-live"
          />
        </label>
        <p className="text-small text-soft">
          From {formatTime(from)} to {formatTime(Math.min(seconds, from + LONGEST))} goes round. The file itself stays
          as it is; drop it again for another stretch.
        </p>
        {fault !== null && <Refused>{fault}</Refused>}
        <div className="flex justify-end gap-2">
          <Button onClick={() => answer(null)}>Keep nothing</Button>
          <Button main type="submit" disabled={fault !== null}>
            Keep these {LONGEST} s
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
