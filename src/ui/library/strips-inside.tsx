"use client";

import { processorsOf } from "@/core/chains/tree";
import { counted } from "@/core/names/count";
import type { KeyedStrip } from "@/core/presets/preset";
import { PART } from "@/core/strips/parts";
import { partsOf } from "@/core/strips/strip";
import { hear } from "../listening/listening";
import { soundAt } from "../listening/strip-sound";
import { StripMark } from "../kit/card-mark";
import { Shapes } from "../kit/shape";

interface Props {
  readonly strips: readonly KeyedStrip[];
  readonly tempo: number;
}

/** The group among them that a strip goes to. */
function groupAmong({ routing }: KeyedStrip, strips: readonly KeyedStrip[]): KeyedStrip | undefined {
  const output = routing?.output;
  const to = output && "strip" in output ? output.strip : null;
  return strips.find(({ id, kind }) => id === to && kind === "group");
}

/** Depth of a strip under the groups that are kept with it. */
function depthOf(strip: KeyedStrip, strips: readonly KeyedStrip[]): number {
  let depth = 0;
  for (let above = groupAmong(strip, strips); above && depth < 8; above = groupAmong(above, strips)) depth += 1;
  return depth;
}

/** What one strip of a set says of a part; strips among them by their names. */
function wordsFor(
  strip: KeyedStrip,
  part: "sends" | "level" | "pan" | "routing",
  strips: readonly KeyedStrip[],
): string {
  const nameOf = (id: string) => strips.find((one) => one.id === id)?.name ?? null;
  const around = { kind: strip.kind, nameOf };
  if (part === "sends") return strip.sends ? PART.sends.words(strip.sends, around) : "";
  if (part === "level") return strip.level ? PART.level.words(strip.level, around) : "";
  if (part === "pan") return strip.pan ? PART.pan.words(strip.pan, around) : "";
  return strip.routing ? `to ${PART.routing.words(strip.routing, around)}` : "";
}

/** The strips of a set as a small ledger; a press lets one be heard. */
export function StripsInside({ strips, tempo }: Props) {
  return (
    <section>
      <h3 className="h2 pb-1">Inside, {counted(strips.length, "strip")}</h3>
      <ul>
        {strips.map((strip) => {
          const { id, kind, name, look, inserts, source } = strip;
          const held = partsOf(strip);
          const says = (["sends", "level", "pan", "routing"] as const)
            .filter((part) => held.includes(part))
            .map((part) => wordsFor(strip, part, strips))
            .join(" · ");
          return (
            <li key={id} className="border-rule border-b">
              <button
                type="button"
                disabled={!inserts}
                title={inserts ? `Hear ${name}` : undefined}
                onClick={() => inserts && hear(soundAt(inserts, { name, tempo, strip: source ? { source } : null }))}
                className="grid w-full gap-[2px] py-[6px] text-left hover:not-disabled:bg-sunk"
                style={{ paddingLeft: depthOf(strip, strips) * 14 }}
              >
                <span className="flex min-w-0 items-center gap-2">
                  <StripMark kind={kind} icon={look?.icon} colour={look?.colour} />
                  <span className="name min-w-0 flex-1 truncate">{name}</span>
                  {inserts && <Shapes processors={processorsOf(inserts)} tempo={tempo} most={3} width={44} />}
                </span>
                <span className="truncate text-small text-soft">{says}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
