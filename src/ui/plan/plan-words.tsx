"use client";

import type { PlanBody } from "@/contracts/projects";
import { processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { type Project, findStrip } from "@/core/projects/project";
import type { Question } from "@/core/recall/plan-shape";
import { findSpec } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import { formatHeard } from "@/core/units/format";
import { formatNoteLength, isNoteLength } from "@/core/units/note-length";
import { beatsPerMinute } from "@/core/units/quantities";
import { SideHeading } from "../kit/bits";

interface QuestionsProps {
  readonly questions: readonly Question[];
  readonly onAnswer: (question: string, answer: string) => void;
}

export function Questions({ questions, onAnswer }: QuestionsProps) {
  if (questions.length === 0) return null;
  return (
    <>
      <SideHeading>{questions.length === 1 ? "One question" : `${questions.length} questions`}</SideHeading>
      {questions.map((question) => (
        <fieldset key={question.id} className="grid gap-[6px] border-edit border-l-[3px] bg-edit-tint px-3 py-2">
          <legend className="contents">{question.text}</legend>
          {question.choices.map((choice) => (
            <label key={choice.id} className="flex items-center gap-2 text-small">
              <input
                type="radio"
                name={question.id}
                checked={question.answer === choice.id}
                onChange={() => onAnswer(question.id, choice.id)}
                className="accent-live"
              />
              {choice.text}
            </label>
          ))}
        </fieldset>
      ))}
    </>
  );
}

/** What will follow this project's tempo, in milliseconds here. */
export function Following({ after, plan }: { readonly after: Project; readonly plan: PlanBody["plan"] }) {
  const tempo = beatsPerMinute(after.tempo);
  const lines = new Set<string>();
  for (const { strip } of plan.rows)
    for (const processor of processorsOf(findStrip(after, strip)?.inserts ?? { nodes: [], macros: [] }))
      for (const [id, value] of Object.entries(processor.values)) {
        const tap = /^(tap\d)\.time$/.exec(id)?.[1];
        if (!isNoteLength(value) || (tap && processor.values[`${tap}.on`] !== 1)) continue;
        const model = findModel(processor.model);
        const spec = model && findSpec(model, id);
        const heard = spec && formatHeard(spec, value, tempo);
        if (heard) lines.add(`${processorName(processor)}: ${formatNoteLength(value)} is ${heard.text} ${heard.unit}`);
      }
  if (lines.size === 0 || plan.steps.length === 0) return null;
  return (
    <>
      <SideHeading>Follows the tempo, {after.tempo} bpm</SideHeading>
      <ul className="grid gap-[2px] text-small">
        {[...lines].map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </>
  );
}
