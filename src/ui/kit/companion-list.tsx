"use client";

import { plural } from "@/core/names/count";
import type { Companion, CompanionWay } from "@/core/projects/companions";
import { stripName } from "@/core/strips/strip";
import { StripMark } from "./card-mark";
import { Tick } from "./tick";

/** "goes to" of one, "go to" of several. */
const PLURALS: Readonly<Record<string, string>> = {
  "goes to": "go to",
  "sends to": "send to",
  "is keyed by": "are keyed by",
  hears: "hear",
};

/** Names that are told; the rest is counted. */
const TOLD = 3;

function namesOf({ strips }: CompanionWay): string {
  const names = strips.slice(0, TOLD).map(stripName).join(", ");
  return strips.length > TOLD ? `${names} and ${strips.length - TOLD} more` : names;
}

const wayWords = (way: CompanionWay): string =>
  way.isTheirs
    ? `${namesOf(way)} ${plural(way.strips.length, way.leads, PLURALS[way.leads] ?? way.leads)} it`
    : `it ${way.leads} ${namesOf(way)}`;

const words = ({ ways }: Companion): string => ways.map(wayWords).join("; ");

interface Props {
  readonly legend: string;
  readonly companions: readonly Companion[];
  /** Those that are kept along, by their ids. */
  readonly along: readonly string[];
  readonly onAlong: (strip: string, on: boolean) => void;
}

/** Strips that belong with others that are kept, each with its switch; what stays outside is kept by its name. */
export function CompanionList({ legend, companions, along, onAlong }: Props) {
  if (companions.length === 0) return null;
  return (
    <fieldset className="grid min-w-0 content-start gap-1">
      <legend className="pb-1 text-small text-soft">{legend}</legend>
      <ul className="grid max-h-[130px] gap-y-1 overflow-auto">
        {companions.map((companion) => {
          const { strip } = companion;
          return (
            <li key={strip.id} className="flex min-w-0 items-center gap-2">
              <Tick
                label={`Keep ${stripName(strip)}`}
                on={along.includes(strip.id)}
                onChange={(on) => onAlong(strip.id, on)}
              />
              <StripMark kind={strip.kind} {...strip.look} />
              <span className="name flex-none truncate">{stripName(strip)}</span>
              <span className="min-w-0 truncate text-small text-soft">{words(companion)}</span>
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}
