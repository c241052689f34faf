"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Play } from "lucide-react";
import { useRouter, useSearchParams } from "next/navigation";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PlanBody, PlanRequest } from "@/contracts/endpoints";
import type { PresetRow } from "@/contracts/records";
import { type Processor, processorName, processorsOf } from "@/core/chains/chain";
import { type Project, describeOutput, findStrip } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import type { Exception, InsertMode, Question } from "@/core/recall/plan";
import { PARTS, PART_NAMES, type PartName, type Strip, formatFader, formatPanPart, partsOf } from "@/core/strips/strip";
import { formatHeard } from "@/core/units/format";
import { formatNoteLength, isNoteLength } from "@/core/units/note-length";
import { beatsPerMinute } from "@/core/units/quantities";
import { useActions } from "../actions/actions";
import { Empty, Loading, SideHeading } from "../kit/bits";
import { Button } from "../kit/button";
import { Panels } from "../kit/panels";
import { ManySegments, Segments } from "../kit/segments";
import { Shapes } from "../kit/shape";
import { useTakeProject } from "../frame/hand";
import { hear, setPlaying, setProcessed } from "../listening/listening";
import { useProjectEditing } from "../projects/editing";
import { Tick } from "../kit/tick";
import { targetsOf } from "./recall";
import { say } from "../kit/say";

const MODES: readonly { value: InsertMode; label: string }[] = [
  { value: "replace", label: "Replace" },
  { value: "before", label: "Before" },
  { value: "after", label: "After" },
  { value: "values", label: "Values only" },
];

const heldBy = ({ content }: PresetRow): readonly PartName[] =>
  content.kind === "strip" ? partsOf(content.strip) : ["inserts"];

/** What was switched off, as the plan takes it. */
const toExceptions = (off: ReadonlySet<string>): Exception[] =>
  [...off].map((cell) => {
    const [strip, part] = cell.split(" ");
    return { strip: strip ?? "", ...(part ? { part: part as PartName } : {}) };
  });

function usePlan(id: string) {
  const params = useSearchParams();
  const presetId = params.get("preset") ?? "";
  const version = Number(params.get("version") ?? 0);
  const strips = params.get("strips")?.split(",").filter(Boolean) ?? [];
  const editing = useProjectEditing(id);
  const preset = useQuery({
    queryKey: KEYS.version(presetId, version),
    queryFn: () => api.getPreset(presetId, version || undefined),
    retry: false,
  });
  const [without, setWithout] = useState<readonly PartName[]>([]);
  const [chosenMode, setMode] = useState<InsertMode | null>(null);
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  const row = preset.data?.preset;
  const held = row ? heldBy(row) : [];
  const mode = chosenMode ?? (row?.kind === "plugin" ? "after" : "replace");
  const parts = held.filter((p) => !without.includes(p));
  const revision = editing.body?.revision;
  const request: PlanRequest = {
    requests: [
      {
        source: { preset: presetId, ...(version ? { version } : {}) },
        parts: parts.length > 0 ? [...parts] : [...PARTS],
        targets: targetsOf(editing.body, strips),
        mode,
      },
    ],
    except: parts.length > 0 ? toExceptions(off) : PARTS.map((part) => ({ part })),
    answers,
  };
  const planned = useQuery({
    queryKey: ["plan", id, revision, request],
    queryFn: () => api.planRecall(id, request),
    enabled: row !== undefined && revision !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 0,
  });
  return {
    editing,
    row,
    held,
    parts,
    mode,
    off,
    planned,
    strips,
    setWithout,
    setMode,
    setOff,
    setAnswers,
    error: preset.error ?? planned.error ?? editing.error,
  };
}

export function PlanScreen({ id }: { readonly id: string }) {
  useTakeProject(id);
  const state = usePlan(id);
  const { editing, row, planned, error } = state;
  if (error)
    return (
      <Empty page title="This cannot be planned">
        <p role="alert">{error.message}</p>
      </Empty>
    );
  const project = editing.body?.project;
  if (!project || !row || !planned.data) return <Loading what="Planning" />;
  return (
    <OpenPlan project={project} preset={row} body={planned.data} state={state} fresh={!planned.isPlaceholderData} />
  );
}

interface OpenProps {
  readonly project: Project;
  readonly preset: PresetRow;
  readonly body: PlanBody;
  readonly state: ReturnType<typeof usePlan>;
  /** False while a changed plan is on its way. */
  readonly fresh: boolean;
}

function OpenPlan({ project, preset, body: { plan, sentences }, state, fresh }: OpenProps) {
  const router = useRouter();
  const { editing, held, parts, mode } = state;
  const applied = applySteps(project, plan.steps);
  const after = applied.ok ? applied.value : project;
  const count = plan.steps.length;
  const targetWords =
    state.strips.length === 1
      ? (findStrip(project, state.strips[0]!)?.look.name ?? "")
      : state.strips.length > 1
        ? `${state.strips.length} strips`
        : "a new strip";
  const back = () => router.push(`/projects/${project.id}`);
  const apply = async () => {
    if (count === 0 || !fresh) return;
    const label = `Apply “${preset.card.name}” to ${targetWords}`;
    const done = await editing.commit(label, () => plan.steps);
    if (!done) return;
    say(`${label}: ${count} change${count === 1 ? "" : "s"}`, {
      action: { label: "Undo", onClick: () => void editing.undo() },
    });
    back();
  };
  const hearIt = () => {
    const target = plan.rows[0]?.strip;
    const [now, then] = target ? [findStrip(project, target), findStrip(after, target)] : [null, null];
    if (!then) return;
    hear("b", now ? { name: `${now.look.name}, as it is`, chain: now.inserts, tempo: project.tempo } : null);
    hear("a", { name: `${then.look.name}, after`, chain: then.inserts, tempo: project.tempo });
    setProcessed(true);
    void setPlaying(true);
  };
  useActions([
    {
      id: "apply-plan",
      title: `Apply ${count} changes`,
      group: "Plan",
      keys: ["Ctrl+Enter"],
      enabled: count > 0,
      run: () => void apply(),
    },
    { id: "hear-plan", title: "Hear it, with B as it is now", group: "Plan", keys: ["H"], run: () => hearIt() },
    { id: "cancel-plan", title: "Leave the plan", group: "Plan", keys: ["Escape"], run: () => void back() },
  ]);
  const main = (
    <section aria-label="Plan" className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-baseline gap-3 px-4 pt-[14px] pb-[10px]">
        <h1 className="h1 truncate">Apply “{preset.card.name}”</h1>
        <p className="whitespace-nowrap text-soft">
          version {preset.version}, onto {targetWords} of {project.name}
        </p>
      </header>
      <div className="flex flex-none flex-wrap items-center gap-2 px-4 pb-[10px]">
        <span className="text-small text-soft">Parts</span>
        <ManySegments
          label="Parts"
          values={parts}
          onChange={(on) => state.setWithout(held.filter((p) => !on.includes(p)))}
          options={held.map((p) => ({ value: p, label: PART_NAMES[p] }))}
        />
        {held.includes("inserts") && (
          <>
            <span className="ml-[10px] text-small text-soft">Inserts</span>
            <Segments label="Inserts" value={mode} onChange={state.setMode} options={MODES} />
          </>
        )}
      </div>
      <Rows project={project} after={after} plan={plan} off={state.off} onOff={state.setOff} />
    </section>
  );
  const side = (
    <aside aria-label="Questions and changes" className="flex h-full flex-col bg-card">
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto px-[18px] py-4">
        <Questions
          questions={plan.questions}
          onAnswer={(question, answer) => state.setAnswers((given) => ({ ...given, [question]: answer }))}
        />
        <SideHeading>In words</SideHeading>
        {count === 0 ? (
          <p className="text-small text-soft">Nothing would change: it is all there already, or switched off.</p>
        ) : (
          <ol className="grid list-decimal gap-[2px] pl-[18px] text-small">
            {sentences.map((sentence, at) => (
              <li key={plan.steps[at]?.id ?? sentence}>{sentence}</li>
            ))}
          </ol>
        )}
        <Following after={after} plan={plan} />
        {plan.notes.length > 0 && (
          <>
            <SideHeading>Left as it is</SideHeading>
            <ul className="grid gap-1 text-small">
              {plan.notes.map((note) => (
                <li key={`${note.strip} ${note.text}`}>
                  {findStrip(after, note.strip)?.look.name ?? ""}: {note.text}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <div className="flex flex-wrap gap-2 px-[18px] py-4">
        <Button onClick={hearIt}>
          <Play size={16} aria-hidden="true" />
          Hear it
        </Button>
        <Button onClick={back}>Cancel</Button>
        <Button main disabled={count === 0 || !fresh} onClick={() => void apply()}>
          Apply {count} change{count === 1 ? "" : "s"}
        </Button>
      </div>
    </aside>
  );
  return (
    <Panels
      id="plan"
      panes={[
        { id: "rows", label: "the plan", min: 600, children: main },
        { id: "words", label: "the words", size: 300, min: 240, children: side },
      ]}
    />
  );
}

const COLUMNS = "grid grid-cols-[150px_minmax(270px,1fr)_116px_92px_100px] items-center gap-[10px] px-4";

interface RowsProps {
  readonly project: Project;
  readonly after: Project;
  readonly plan: PlanBody["plan"];
  readonly off: ReadonlySet<string>;
  readonly onOff: (off: ReadonlySet<string>) => void;
}

/** Strips by parts: before and after where something changes, "stays" where nothing does. */
function Rows({ project, after, plan, off, onOff }: RowsProps) {
  const toggle = (cell: string, on: boolean) => {
    const next = new Set(off);
    if (on) next.delete(cell);
    else next.add(cell);
    onOff(next);
  };
  const changed = new Set(plan.steps.map((s) => s.cell.strip)).size;
  const others = project.strips.length - plan.rows.filter((r) => !r.isNew).length;
  return (
    <div role="table" aria-label="Changes" className="min-h-0 flex-1 overflow-auto">
      <div role="row" className={`${COLUMNS} h-[30px] border-edge border-y text-small text-soft`}>
        {["Onto", "Inserts", "Level", "Pan", "Output"].map((head) => (
          <span key={head} role="columnheader">
            {head}
          </span>
        ))}
      </div>
      {plan.rows.map(({ strip: id, isNew, parts }) => {
        const now = findStrip(project, id);
        const then = findStrip(after, id);
        const name = (then ?? now)?.look.name ?? "";
        const on = !off.has(id);
        const cell = (part: PartName) => {
          const planned = parts.find((p) => p.part === part);
          if (!planned || isNew) return null;
          return (
            <Tick
              label={`${PART_NAMES[part]} of ${name}`}
              on={on && !off.has(`${id} ${part}`)}
              onChange={(next) => toggle(`${id} ${part}`, next)}
            />
          );
        };
        return (
          <div role="row" key={id} className={`${COLUMNS} min-h-[78px] border-rule border-b py-1`}>
            <span role="cell" className="flex items-center gap-2">
              {!isNew && <Tick label={`All of ${name}`} on={on} onChange={(next) => toggle(id, next)} />}
              <span className="min-w-0">
                <span className="name block truncate">{name}</span>
                {isNew && <span className="text-small text-live">new strip</span>}
                {now && then && now.look.name !== then.look.name && (
                  <span className="block text-small text-soft">was {now.look.name}</span>
                )}
              </span>
            </span>
            <span role="cell" className="flex items-center gap-2">
              {cell("inserts")}
              <InsertsChange now={now} then={then} tempo={project.tempo} />
            </span>
            <PartCell
              tick={cell("level")}
              unit=" dB"
              now={now && formatFader(now.level)}
              then={then && formatFader(then.level)}
            />
            <PartCell tick={cell("pan")} now={now && formatPanPart(now.pan)} then={then && formatPanPart(then.pan)} />
            <PartCell
              tick={cell("routing")}
              now={now && describeOutput(project, now.routing.output)}
              then={then && describeOutput(after, then.routing.output)}
            />
          </div>
        );
      })}
      <p className="px-4 py-[10px] text-small text-soft">
        {plan.steps.length} change{plan.steps.length === 1 ? "" : "s"} in {changed} strip{changed === 1 ? "" : "s"} ·
        everything without an arrow, and {others} other strip
        {others === 1 ? "" : "s"}, stay as they are
      </p>
    </div>
  );
}

function InsertsChange({
  now,
  then,
  tempo,
}: {
  readonly now: Strip | null;
  readonly then: Strip | null;
  readonly tempo: number;
}) {
  const before = now ? processorsOf(now.inserts) : [];
  const after = then ? processorsOf(then.inserts) : [];
  if (now && now.inserts === then?.inserts)
    return (
      <span className="flex items-center gap-2 text-small text-faint">
        stays <Names processors={before} tempo={tempo} />
      </span>
    );
  return (
    <span className="grid gap-[3px] text-small">
      <span className="grid grid-cols-[38px_1fr] items-center text-soft">
        before <Names processors={before} tempo={tempo} />
      </span>
      <span className="grid grid-cols-[38px_1fr] items-center text-live">
        after <Names processors={after} tempo={tempo} />
      </span>
    </span>
  );
}

function Names({ processors, tempo }: { readonly processors: readonly Processor[]; readonly tempo: number }) {
  return processors.length > 0 ? (
    <Shapes processors={processors} tempo={tempo} />
  ) : (
    <span className="h-7 content-center">no plugins</span>
  );
}

interface PartCellProps {
  readonly tick: React.ReactNode;
  readonly now: string | null;
  readonly then: string | null;
  readonly unit?: string;
}

function PartCell({ tick, now, then, unit = "" }: PartCellProps) {
  return (
    <span role="cell" className="flex min-w-0 items-center gap-2 text-small">
      {tick}
      {now === then || now === null ? (
        <span className="truncate text-faint">
          {now === null ? then : `stays ${now}`}
          {unit}
        </span>
      ) : (
        <span className="min-w-0">
          <span className="text-soft">{now}</span> → {then}
          {unit}
        </span>
      )}
    </span>
  );
}

interface QuestionsProps {
  readonly questions: readonly Question[];
  readonly onAnswer: (question: string, answer: string) => void;
}

function Questions({ questions, onAnswer }: QuestionsProps) {
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
function Following({ after, plan }: { readonly after: Project; readonly plan: PlanBody["plan"] }) {
  const tempo = beatsPerMinute(after.tempo);
  const lines = new Set<string>();
  for (const { strip } of plan.rows)
    for (const processor of processorsOf(findStrip(after, strip)?.inserts ?? { nodes: [], macros: [] }))
      for (const [id, value] of Object.entries(processor.values)) {
        const tap = /^(tap\d)\.time$/.exec(id)?.[1];
        if (!isNoteLength(value) || (tap && processor.values[`${tap}.on`] !== 1)) continue;
        const ms = formatHeard(value, tempo);
        lines.add(`${processorName(processor)}: ${formatNoteLength(value)} is ${ms?.text} ms`);
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
