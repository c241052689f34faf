"use client";

import { processorsOf } from "@/core/chains/tree";
import { counted } from "@/core/names/count";
import { orderOfKept } from "@/core/projects/nesting";
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
        {orderOfKept(strips).map(({ strip, depth }) => {
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
                style={{ paddingLeft: Math.min(depth, 8) * 14 }}
              >
                <span className="flex min-w-0 items-center gap-2">
                  <StripMark kind={kind} icon={look?.icon} colour={look?.colour} />
                  <span className="name min-w-0 flex-1 truncate">{name}</span>
                  {inserts && <Shapes processors={processorsOf(inserts)} tempo={tempo} most={3} width={44} />}
                </span>
                <span className="truncate text-small text-soft">{kind === "folder" ? "folder" : says}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
