"use client";

import { counted } from "@/core/names/count";
import { type Project, findStrip } from "@/core/projects/project";
import { mayGoOnto } from "@/core/recall/match/alike";
import { describeConfidence } from "@/core/recall/match/match";
import { answerFor } from "@/core/recall/plan-places";
import type { PlannedMatch } from "@/core/recall/plan-shape";
import { stripName } from "@/core/strips/strip";
import { SideHeading } from "../kit/bits";
import { StripMark } from "../kit/card-mark";
import { cx } from "../kit/class-names";
import { type Put, dragOf, useMatchDrop } from "./match-drag";

interface Props {
  readonly project: Project;
  readonly matches: readonly PlannedMatch[];
  readonly onPut: Put;
}

/** How it came about, and how far it can be trusted. */
function whyWords({ answer, reason, confidence }: PlannedMatch): string {
  if (answer === "out") return "left out";
  if (reason === "chosen") return "chosen by hand";
  return answer === "new" ? reason : `${reason}, ${describeConfidence(confidence)}`;
}

/** Which strip of a set goes to which strip here, why, and another in its place. */
export function Matches({ project, matches, onPut }: Props) {
  const dropOn = useMatchDrop({ matches, onPut });
  if (matches.length === 0) return null;
  const taken = new Set(matches.map(({ answer }) => answer));
  const fresh = matches.filter(({ answer }) => answer === "new").length;
  return (
    <section aria-label="Which strip goes where" className="grid gap-2">
      <SideHeading>
        {counted(matches.length, "strip")}
        {fresh > 0 ? `, ${fresh} new` : ""}
      </SideHeading>
      <ul className="grid gap-[6px]">
        {matches.map((match) => {
          const { id, name, kind, answer } = match;
          const { isOver, handlers } = dropOn(match.strip === null ? null : findStrip(project, match.strip));
          const isDoubtful = answer === "new" ? match.reason !== "chosen" : answer !== "out" && match.confidence < 0.6;
          return (
            <li
              key={id}
              {...dragOf(match)}
              {...handlers}
              className={cx(
                "grid cursor-grab gap-px border-l-[3px] pl-2",
                isDoubtful ? "border-edit" : "border-transparent",
                isOver && "bg-live-tint",
              )}
            >
              <span className="flex min-w-0 items-center gap-[6px]">
                <StripMark kind={kind} />
                <span className="name min-w-0 flex-1 truncate">{name}</span>
              </span>
              <span className="flex items-center gap-2">
                <select
                  aria-label={`Where ${name} goes`}
                  value={answer}
                  onChange={({ target: { value } }) => onPut({ [id]: value })}
                  className="h-[24px] min-w-0 flex-1 rounded-card border border-bound bg-ground px-1 text-small"
                >
                  <option value="new">a new strip</option>
                  <option value="out">left out</option>
                  {project.strips
                    .filter((strip) => mayGoOnto(match, strip))
                    .filter((strip) => answer === answerFor(strip.id) || !taken.has(answerFor(strip.id)))
                    .map((strip) => (
                      <option key={strip.id} value={answerFor(strip.id)}>
                        onto {stripName(strip)}
                      </option>
                    ))}
                </select>
              </span>
              <span className="text-[11px] leading-[13px] text-soft">{whyWords(match)}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
